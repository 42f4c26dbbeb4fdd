/** What a terminal does on its wire, named from the board's side (`gpio.in` = the board reads it). `external`: it belongs to a circuit
 *  outside of the board, such as a load, a contact or what a driver drives. */
export const ROLES = [
  'i2c.sda',
  'i2c.scl',
  'spi.sck',
  'spi.mosi',
  'spi.miso',
  'spi.cs',
  'uart.tx',
  'uart.rx',
  'onewire.data',
  'gpio.in',
  'gpio.out',
  'gpio.both',
  'adc.in',
  'pwm.out',
  'strap',
  'supply.vcc',
  'supply.out',
  'ground',
  'external',
] as const;
export type Role = (typeof ROLES)[number];

/** What a board pin must offer to serve a role. */
export interface RoleDemand {
  /** Line of a bus controller (`i2c.sda` requires a pin with an `i2cN.sda`). */
  readonly line?: { readonly kind: ControllerKind; readonly line: string };
  readonly input?: boolean;
  readonly output?: boolean;
  readonly adc?: boolean;
  readonly pwm?: boolean;
  /** Several terminals of this role on one pin are one signal, not a conflict. */
  readonly shared?: boolean;
}

export const CONTROLLER_KINDS = ['i2c', 'spi', 'uart'] as const;
export type ControllerKind = (typeof CONTROLLER_KINDS)[number];

const bus = (kind: ControllerKind, line: string, shared: boolean): RoleDemand => ({ line: { kind, line }, shared });

/** Roles that take a board pin, each with its demand. Roles that are absent go to rails, ground or elsewhere. */
export const PIN_ROLES: { readonly [R in Role]?: RoleDemand } = {
  'i2c.sda': bus('i2c', 'sda', true),
  'i2c.scl': bus('i2c', 'scl', true),
  'spi.sck': bus('spi', 'sck', true),
  'spi.mosi': bus('spi', 'mosi', true),
  'spi.miso': bus('spi', 'miso', true),
  'spi.cs': { output: true },
  // Named from the board: the board sends on its tx line to a `uart.tx` terminal.
  'uart.tx': bus('uart', 'tx', false),
  'uart.rx': bus('uart', 'rx', false),
  'onewire.data': { input: true, output: true, shared: true },
  'gpio.in': { input: true },
  'gpio.out': { output: true },
  'gpio.both': { input: true, output: true },
  'adc.in': { adc: true },
  'pwm.out': { output: true, pwm: true },
  strap: { output: true },
};

/** The line of a bus that a role is.
 *  @throws RangeError of a role of no bus */
export function busLineOf(role: Role): NonNullable<RoleDemand['line']> {
  const line = PIN_ROLES[role]?.line;
  if (!line) throw new RangeError(`${role} is no line of a bus`);
  return line;
}

/** Words for a role, as shown beside a terminal. */
export const ROLE_WORDS: { readonly [R in Role]: string } = {
  'i2c.sda': 'I2C data',
  'i2c.scl': 'I2C clock',
  'spi.sck': 'SPI clock',
  'spi.mosi': 'SPI MOSI',
  'spi.miso': 'SPI MISO',
  'spi.cs': 'SPI chip select',
  'uart.tx': 'serial, to the part',
  'uart.rx': 'serial, from the part',
  'onewire.data': '1-Wire data',
  'gpio.in': 'input of the board',
  'gpio.out': 'output of the board',
  'gpio.both': 'input and output',
  'adc.in': 'analog input of the board',
  'pwm.out': 'PWM output of the board',
  strap: 'strap',
  'supply.vcc': 'supply',
  'supply.out': 'supply output of the part',
  ground: 'ground',
  external: 'external circuit',
};
