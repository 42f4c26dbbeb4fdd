import type { Range } from '../quantity/range';
import type { LevelFact, RegulatorFacts } from './boardSheet';
import type { Role } from './roles';
import type { SourcedShape } from './shape';
import type { Sourced } from './source';

export const FAMILIES = ['display', 'sensor', 'input', 'light', 'output', 'storage', 'clock', 'power', 'helper'] as const;
export type Family = (typeof FAMILIES)[number];

/** What a terminal may be tied to instead of taking a pin: ground, a supply, or a bus line of the part's own. */
export const TIES = ['ground', 'supply', 'sda', 'scl'] as const;
export type Tie = (typeof TIES)[number];

/** What a terminal of a helper does for another part: it is read, it is set, it selects one part at a time, or it measures a voltage. */
export const SERVICES = ['input', 'output', 'select', 'analog'] as const;
export type Service = (typeof SERVICES)[number];

export interface PartTerminal {
  readonly id: string;
  /** Place along the printed row, from 1. */
  readonly number: number;
  readonly label: string;
  readonly also?: readonly string[];
  readonly role: Role;
  /** Seen from the part. */
  readonly direction: 'in' | 'out' | 'both' | 'passive';
  readonly need: 'needed' | 'optional';
  /** Where the terminal may be tied instead of taking a pin. */
  readonly ties?: readonly Tie[];
  /** Special abilities the pin must have. */
  readonly requires?: readonly ('interrupt' | 'pwm')[];
  /** Abilities that help but are not needed. */
  readonly prefers?: readonly ('interrupt' | 'pwm')[];
  /** Frequencies of PWM with which the terminal works, in hertz: one timer gives only one. */
  readonly pwmHz?: Range;
  /** Idle level while nothing drives the line. */
  readonly idle?: 'high' | 'low';
  /** What is missing while nothing is wired to it, where the part works all the same; `with` is the other end of the same circuit,
   *  `wired` what it does at first power-up once both are wired. */
  readonly ifOpen?: { readonly note: string; readonly with?: string; readonly wired?: string };
  /** Active level of something that switches, moves or sounds: a pulse at reset has an effect. */
  readonly acts?: 'high' | 'low';
  /** Of an output, where it is of another kind than the part's others; contacts to ground are open drain. */
  readonly outputs?: 'push-pull' | 'open-drain';
  /** End of a chain: `in` receives from the part before, `out` drives the part after. */
  readonly chain?: 'in' | 'out';
  /** Lines of this kind may be joined with those of other parts: the parts have selects, may start together, or (`clock`, among parts of
   *  one chip) do nothing on a clock that their own data line does not go with. */
  readonly line?: 'data-command' | 'reset' | 'clock';
  /** What this terminal of a helper can do for a terminal of another part. */
  readonly serves?: readonly Service[];
  /** A line of a multiplexer's channel. */
  readonly channel?: { readonly number: number; readonly line: 'sda' | 'scl' };
  /** Supply range of this terminal in volts, where it is not the part's. */
  readonly volts?: Range;
  /** An LED that a resistor must keep; its own forward voltage, where it is not the part's. */
  readonly led?: { readonly forwardVolts?: Range };
  /** The common line of one digit of several: it carries all that is lit in it. */
  readonly digit?: true;
  /** The low end of a coil: what switches it off needs a diode from here to the other end, unless it clamps by itself. */
  readonly coil?: { readonly other: string };
  /** Input current of this terminal, in milliamperes. */
  readonly loadMilliamps?: number;
  /** Resistance of an analog output, at the position where it is highest, in ohms. */
  readonly sourceOhms?: number;
  /** A voltage between supply and ground that a trimmer or a fixed divider sets, such as the contrast of a display: how far it lies below
   *  the supply of the part, and the trimmer to use. */
  readonly bias?: { readonly belowSupplyVolts: Range; readonly trimmerOhms: number };
  /** A resistor to add in this wire, or from it to ground, in ohms, where no calculation gives one. */
  readonly seriesOhms?: number;
  readonly pullDownOhms?: number;
  /** A component that must sit in this wire, in words. */
  readonly through?: string;
  readonly note?: string;
}

/** A choice made on the module: by wiring one of its terminals, or by a solder jumper. */
export interface Strap {
  readonly id: string;
  readonly by: 'terminal' | 'jumper';
  readonly terminal?: string;
  readonly states: readonly { readonly id: string; readonly words: string; readonly tie?: Tie }[];
  readonly default: string;
  /** Maximum voltage of the strap terminal, in volts. */
  readonly maxVolts?: number;
}

export interface I2cDevice {
  readonly id: string;
  readonly chip: string;
  /** Its compatible string in the Linux device tree, if a kernel driver exists. */
  readonly linux?: string;
  /** `fixed`, by a strap, by order code, by the program after start-up, or stored in the part. */
  readonly how: 'fixed' | 'strap' | 'order-code' | 'program' | 'stored';
  /** Addresses it answers on besides the selected one. */
  readonly alsoAnswers?: readonly { readonly address: number; readonly note: string }[];
  /** Where the program or a stored value may move the address to. */
  readonly movable?: { readonly min: number; readonly max: number; readonly by: string };
  /** Every selectable address with the strap states that select it (none where fixed). */
  readonly addresses: readonly {
    readonly address: number;
    readonly straps: { readonly [strap: string]: string };
    /** Why the address is not for use, although the straps can select it. */
    readonly reserved?: string;
  }[];
  readonly maxHz: number;
  readonly clockStretching: boolean | 'optional';
}

/** A further chip of a module on the same SPI lines, with a select and limits of its own: the touch controller of a display. */
export interface FurtherChip {
  readonly id: string;
  readonly chip: string;
  /** The terminal that selects it. */
  readonly select: string;
  /** Its other lines, where it need not be wired: it counts as soon as one of them is. */
  readonly terminals?: readonly string[];
  readonly modes: readonly number[];
  readonly maxHz: number;
  /** Its compatible string in the Linux device tree, if a kernel driver exists. */
  readonly linux?: string;
}

/** A capacitor that a part needs beside it, between a terminal and ground. */
export interface WantedCapacitor {
  readonly farads: number;
  /** Where to place it, in words. */
  readonly at: string;
  /** The terminal, where that is not the supply that its signals follow. */
  readonly terminal?: string;
}

/** A part: all facts about it. */
export interface PartSheet {
  readonly kind: 'part';
  readonly schema: 1;
  readonly id: string;
  readonly version: number;
  readonly chip: string;
  readonly family: Family;
  readonly title: string;
  /** Default name of a placement. */
  readonly short: string;
  readonly summary: string;
  /** Parts that carry the same group are forms of one thing (bus, voltage, pin count). */
  readonly variantOf?: string;
  readonly size?: string;
  /** Its front, to scale; without it a plain one is drawn from the terminals. */
  readonly shape?: SourcedShape;
  readonly words?: readonly string[];
  readonly terminals: Sourced & { readonly list: readonly PartTerminal[] };
  readonly bus: Sourced & {
    readonly kind: 'i2c' | 'spi' | 'uart' | 'private' | 'none';
    readonly protocol?: string;
    readonly straps?: readonly Strap[];
    readonly devices?: readonly I2cDevice[];
    readonly modes?: readonly number[];
    readonly maxWriteHz?: number;
    /** Compatible string of an SPI part in the Linux device tree, if a kernel driver exists. */
    readonly linux?: string;
    readonly maxReadHz?: number;
    /** Fixed bit rate, in hertz. */
    readonly fixedHz?: number;
    /** Limits that change with the supply, as points: at this supply, this highest clock. */
    readonly clockPoints?: readonly { readonly volts: number; readonly maxHz: number }[];
    /** Terminals that select this bus and how they must be tied. */
    readonly modeTies?: readonly { readonly terminal: string; readonly tie: 'ground' | 'supply'; readonly note: string }[];
    readonly hasSelect?: boolean;
    /** The rising chip select latches the shifted bits; it does not gate the clock. */
    readonly selectLatches?: boolean;
    /** Bits per part in a daisy chain. */
    readonly chainBits?: number;
    readonly releasesDataOut?: boolean;
    /** Further chips of the module on the same lines; the facts beside this are of the first. */
    readonly further?: readonly FurtherChip[];
    readonly note?: string;
  };
  readonly supply?: Sourced & {
    readonly volts: Range;
    /** Destroyed above this; between it and the range's top the part is outside of what its datasheet promises. */
    readonly absoluteMaxVolts?: number;
    readonly typicalMilliamps: number;
    readonly peakMilliamps: number;
    readonly regulator: boolean;
    /** The unit of the currents if the plan states a quantity: one pixel of a strip. */
    readonly unit?: string;
    /** Capacitors that it needs beside it and that are not on it. */
    readonly capacitors?: readonly WantedCapacitor[];
    /** The supply sets the level of the part's outputs or pull-ups, so it must be the board's logic supply. */
    readonly mustMatchLogic?: boolean;
    readonly note?: string;
  };
  readonly levels?: Sourced & {
    readonly vihMin?: LevelFact;
    readonly vilMax?: LevelFact;
    readonly volMax?: { readonly volts: number; readonly atMilliamps: number };
    readonly vohMin?: { readonly volts: number; readonly atMilliamps: number };
    readonly logicVolts?: Range;
    /** Highest voltage the signal terminals take, in volts, where that is above the part's own logic supply. */
    readonly tolerantVolts?: number;
    readonly outputs?: 'push-pull' | 'open-drain';
    readonly schmitt?: true;
    readonly note?: string;
  };
  /** What the outputs of a helper give or take at most, each and together. */
  readonly drive?: Sourced & { readonly milliamps: number; readonly totalMilliamps: number };
  readonly module: Sourced & {
    readonly pullUps?: readonly {
      readonly terminals: readonly string[];
      readonly ohms: number;
      readonly to: 'supply' | 'regulated';
      /** The supply terminal that they go to, where that is not the one which the part's signals follow. */
      readonly from?: string;
      readonly cut: 'jumper' | 'resistor';
    }[];
    readonly passives: readonly string[];
    /** Level shift on the module: which terminals, and how. */
    readonly levelShift?: { readonly terminals: readonly string[]; readonly how: string };
  };
  /** Inputs each with an open-collector output, which connects its load to ground while the input is high. */
  readonly sinks?: Sourced & {
    readonly channels: readonly { readonly input: string; readonly output: string }[];
    /** Of one output, absolute maximum, and of all together. */
    readonly milliamps: number;
    readonly totalMilliamps: number;
    /** What an output keeps while it is on, in volts. */
    readonly dropVolts: Range;
    /** The common end of its clamp diodes, which goes to the supply of the coils. */
    readonly clamp?: string;
  };
  /** Outputs that light LEDs in turn: the segment outputs feed all digits, the digit outputs select one after another. */
  readonly multiplex?: Sourced & {
    /** Terminals in the order of the bits of a digit, bit 0 first; more than eight are further digits at the same digit outputs. */
    readonly segments: readonly string[];
    /** Terminals in the order of the digit registers, the first one first. */
    readonly digits: readonly string[];
    /** What the digit outputs connect: cathodes to ground, or anodes to the supply. */
    readonly common: 'anode' | 'cathode';
    /** Highest segment current where the chip scans one digit only, two, and so on, in milliamperes; with more digits no lower limit. */
    readonly fewDigitsMilliamps?: readonly number[];
  };
  /** Supplies that the part makes for others: a regulator from a supply terminal of its own, or a source from outside of the plan. */
  readonly supplies?: Sourced & {
    readonly list: readonly {
      /** The terminal that gives it. */
      readonly output: string;
      /** Nominal voltage and its limits over load and temperature. */
      readonly volts: Range;
      readonly maxMilliamps: number;
      /** The supply terminal that it is made from, and how; none for a source. */
      readonly regulator?: RegulatorFacts & { readonly from: string };
    }[];
  };
  /** The resistor that sets the current of a driver's segments: the terminal where it sits or its value on the module, and the table of its
   *  datasheet, the most current first. */
  readonly currentSet?: Sourced & {
    readonly terminal?: string;
    readonly fixedOhms?: number;
    /** Segments that are on at once. */
    readonly segments: number;
    /** What the driver itself draws with all segments off. */
    readonly ownMilliamps?: number;
    readonly usualMilliamps: number;
    readonly usualVolts: number;
    readonly ledVolts: readonly number[];
    readonly rows: readonly { readonly milliamps: number; readonly kiloohms: readonly number[] }[];
  };
  /** Lines that go through the part from one supply's side to the other's: a level shifter. */
  readonly levelShifter?: Sourced & {
    /** `mosfet`: both ends are connected while the line is low; `auto`: the same, with accelerated edges; `buffer`: each side is driven
     *  separately, with its own pull-ups and capacitance; `drive`: a unidirectional logic buffer. */
    readonly kind: 'mosfet' | 'auto' | 'buffer' | 'drive';
    /** Which way a logic buffer drives: to the higher voltage (from `low` to `high` of each channel) or to the lower. */
    readonly drives?: 'up' | 'down';
    /** The supply terminal of each side. */
    readonly low: string;
    readonly high: string;
    readonly channels: readonly { readonly low: string; readonly high: string }[];
    /** Pull-up at each end of each channel, in ohms. */
    readonly ohms?: number;
    /** How far below the low side's supply the two ends part, in volts; none where they are never one. */
    readonly thresholdVolts?: Range;
  };
  readonly memory?: Sourced & { readonly frameBufferBytes: number; readonly required: boolean; readonly format: string };
  readonly readout?: Sourced & {
    readonly columns: number;
    readonly rows: number;
    readonly unit: 'pixels' | 'characters' | 'digits';
    readonly shape: string;
    /** Digits with a colon after them, from 1. */
    readonly colons?: readonly number[];
  };
  readonly polarity?: Sourced & {
    readonly forwardVolts: Range;
    readonly maxMilliamps: number;
    readonly kind: string;
    readonly common?: 'anode' | 'cathode';
  };
  /** How a program usually uses the part: what one access sends and reads, and how often. */
  readonly access?: Sourced & {
    readonly what: 'reading' | 'frame' | 'text';
    readonly perSecond: number;
    readonly transfers: readonly { readonly times: number; readonly write: number; readonly read: number }[];
    /** Most that the part holds the clock low in one access, in microseconds. */
    readonly stretchMicroseconds?: number;
    readonly note?: string;
  };
  /** Keys: each on a wire of its own to ground, all on one ladder of resistors, or in rows and columns, with a diode each or without. */
  readonly keys?: Sourced & {
    readonly count: number;
    readonly as: 'wires' | 'ladder' | 'matrix';
    readonly diodes?: boolean;
    /** Of a ladder: the end the keys connect to; the pin idles at the other end. */
    readonly leadTo?: 'ground' | 'supply';
  };
  /** The two phases of a rotary encoder. */
  readonly encoder?: Sourced & { readonly phases: readonly [string, string]; readonly bounceMilliseconds: number };
  /** How the part is tried over its own SPI lines, at any clock and in mode 0: by what it replies, or by what it shows. */
  readonly trial?: Sourced & {
    /** What is sent, in hexadecimal: the part is selected anew for each. */
    readonly send: readonly string[];
    /** Eighty clocks go before it, while the part is not selected. */
    readonly wake?: true;
    /** Parts of a chain take it once each. */
    readonly each?: true;
    /** The first byte other than 0xFF that comes back behind so many of the last ones sent. */
    readonly reply?: { readonly after: number; readonly byte: number };
    /** What lights or moves then, and what ends it. */
    readonly see?: string;
    readonly undo?: readonly string[];
  };
  /** What the part does at its first power-up; `{addresses}` is replaced by those that its straps select. */
  readonly firstLight: Sourced & { readonly see: string; readonly causes: readonly string[] };
  readonly twins: readonly { readonly what: string; readonly tell: string }[];
  readonly unknown: readonly string[];
}
