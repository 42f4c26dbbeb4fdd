import type { Range } from '../quantity/range';
import type { ControllerKind } from './roles';
import type { SourcedShape } from './shape';
import type { Sourced } from './source';

export type Grade = 'free' | 'caution' | 'reserved';
export const DUTIES = ['boot', 'flash', 'usb', 'debug', 'console', 'led', 'button', 'pull-up', 'eeprom', 'sense', 'select'] as const;
export type Duty = (typeof DUTIES)[number];

/** Where a pin departs from the board's electrical facts. */
export interface PinLimits {
  /** The pin has no internal pull-up (or pull-down). */
  readonly noPullUp?: true;
  readonly noPullDown?: true;
  readonly noOpenDrain?: true;
  /** Maximum voltage of the pin as a digital input, in volts, and the exception. */
  readonly tolerantVolts?: number;
  readonly tolerantUnless?: string;
  /** Lower current limit than the board's other pins, in milliamperes. */
  readonly milliamps?: number;
}

/** A part that comes with the board, with the ends its terminals are soldered to. */
export interface OnBoardPart {
  readonly part: string;
  readonly name: string;
  readonly wires: { readonly [terminal: string]: BoardEnd };
}

/** A place on the board where a wire can end. */
export type BoardEnd =
  { readonly to: 'pin'; readonly pin: string } | { readonly to: 'rail'; readonly rail: string } | { readonly to: 'ground' };

/** A row of connection points, listed in physical order from `ends[0]` to `ends[1]`. */
export interface Header {
  readonly id: string;
  readonly title: string;
  readonly ends: readonly [string, string];
  /** Side of the board on which the header is drawn; `inside` lists conductors that only on-board parts use. */
  readonly side: 'left' | 'right' | 'inside';
  /** Two rows side by side: odd positions in one, even positions in the other, both counted from the same end. */
  readonly rows?: 2;
  /** What a jumper wire meets there. Pins in one row go into a breadboard. */
  readonly contact?: 'socket' | 'pin';
}

/** What using a pin does in spite of its duty. `fails`: it does not reach the chip as the board is delivered; `setting`: it works once something
 *  is switched off; `no-start`: the board may not start; `disturbs`: it works, with a side effect. */
export const PIN_EFFECTS = ['fails', 'setting', 'no-start', 'disturbs'] as const;
export type PinEffect = (typeof PIN_EFFECTS)[number];

/** What the board itself uses a pin for. */
export interface PinDuty {
  readonly duty: Duty;
  readonly note: string;
  readonly ohms?: number;
  /** What a boot duty must read at reset for the board to start its program; of an LED the level at which it lights. */
  readonly level?: 'high' | 'low';
  /** Of a serial port of the board: whether the board drives the line, or what is at its other end. */
  readonly way?: 'sends' | 'receives';
  /** Effect on a terminal connected to the pin, if it does not follow from the duty. */
  readonly effect?: PinEffect;
  /** What to do so that the pin is free, as an instruction. */
  readonly until?: string;
}

export interface BoardPin {
  readonly id: string;
  /** Absent for chip ports that no header brings out. */
  readonly header?: string;
  /** The number printed or counted on the header, from 1. */
  readonly position?: number;
  readonly label: string;
  readonly port?: string;
  readonly also?: readonly string[];
  readonly kind: 'io' | 'ground' | 'supply' | 'control' | 'unconnected';
  readonly rail?: string;
  /** What a control pin does: low at `reset` starts the chip anew. */
  readonly control?: 'reset';
  /** The pin with the facts of the same conductor. */
  readonly sameAs?: string;
  readonly io?: 'both' | 'in' | 'out' | 'analog';
  readonly functions?: readonly string[];
  readonly adc?: { readonly unit: string; readonly channel: number };
  readonly pwm?: { readonly timer: string; readonly channel: string };
  /** `shared`: one interrupt serves a group of pins and the program reads which changed; otherwise it serves one pin at a time, even if
   *  other pins list it. */
  readonly interrupts?: readonly { readonly line: string; readonly shared: boolean }[];
  readonly touch?: string;
  readonly dac?: { readonly unit: string; readonly channel: number };
  /** The pin reaches every line of the controllers whose rule is `any-pin`; the index adds them to `functions`. */
  readonly crossbar?: true;
  readonly limits?: PinLimits;
  /** What the pin does from reset until the program sets it, where it differs from the board's `resetState`. */
  readonly atReset?: string;
  /** What it gives in that time: a high level, or pulses. */
  readonly starts?: 'high' | 'low' | 'pulses';
  readonly duties?: readonly PinDuty[];
  readonly grade?: Grade;
  /** The consequence in words; needed where the grade is not `free`. */
  readonly trouble?: string;
}

export interface Controller {
  readonly id: string;
  readonly kind: ControllerKind;
  readonly title: string;
  readonly maxHz: number;
  readonly modes?: readonly string[];
  /** `membership`: any pins with the functions of this controller can be combined; `sets`: only the listed combinations exist;
   *  `any-pin`: every crossbar pin supports every listed line; the sets bypass the crossbar at the controller's own clock, all others
   *  run at the `maxHz` of the rule; `customary` sets are software defaults. */
  readonly legal:
    | { readonly rule: 'membership' }
    | { readonly rule: 'sets'; readonly sets: readonly PinChoice[] }
    | {
        readonly rule: 'any-pin';
        readonly lines: readonly string[];
        readonly sets: readonly PinChoice[];
        readonly customary?: readonly PinChoice[];
        readonly maxHz: number;
      };
  /** Made by the program instead of the chip. */
  readonly software?: true;
  readonly note?: string;
}

/** One pin a line. */
export type PinChoice = { readonly [line: string]: string };

/** The sets of pins that a controller's sheet lists, direct ones first. */
export const choicesOf = ({ legal }: Controller): readonly PinChoice[] =>
  legal.rule === 'membership' ? [] : legal.rule === 'sets' ? legal.sets : [...legal.sets, ...(legal.customary ?? [])];

/** A bus on the pins that people and example programs use first, with the chip selects that go with it, in order. */
export interface UsualBus {
  readonly controller: string;
  readonly pins: PinChoice;
  readonly selects?: readonly string[];
}

export const REGULATOR_KINDS = ['linear', 'converter', 'diode'] as const;

/** How a regulator works: a linear regulator or a diode passes the same current, a converter the same power divided by its efficiency;
 *  older sheets without a kind count as linear. Dropout in volts, thermal resistance in K/W. */
export interface RegulatorFacts {
  readonly kind?: (typeof REGULATOR_KINDS)[number];
  readonly dropVolts?: number;
  readonly kelvinPerWatt?: number;
  readonly efficiency?: number;
}

/** A current of the board itself, in milliamperes. */
export interface OwnCurrent {
  readonly typicalMilliamps: number;
  readonly peakMilliamps: number;
}

export interface Rail {
  readonly id: string;
  readonly label: string;
  /** Of a rail that a part of the plan gives: the label of the terminal. */
  readonly terminal?: string;
  /** Typical voltage and the limits within which it stays at all. */
  readonly volts: Range;
  /** Where it normally is: the tolerance of a regulator, the range of a USB port with a short cable. */
  readonly usual?: { readonly min: number; readonly max: number };
  readonly budgetMilliamps?: number;
  readonly feed: string;
  /** The regulator from another rail of the board. */
  readonly regulator?: RegulatorFacts & { readonly from: string };
  /** Current of the board itself; `leftOut` if the maximum current is what remains for parts. */
  readonly own?: OwnCurrent & { readonly leftOut?: true };
  /** `in` rails supply the board; parts can still be connected to them. */
  readonly direction: 'out' | 'in' | 'both';
}

/** A drive strength of an output: at most so many volts for low while it sinks so much. */
export interface DriveSetting extends DriveFact {
  readonly setting: string;
  readonly initial?: true;
}

/** What an operating system must enable besides controllers. */
export const ENABLED_FUNCTIONS = ['softi2c', 'onewire', 'pwm'] as const;
export type EnabledFunction = (typeof ENABLED_FUNCTIONS)[number];

/** One way to enable a controller, or another function. The first matching entry is used. */
export interface Enabling {
  readonly controller: string;
  /** Instruction; ends with a colon where lines follow. */
  readonly words: string;
  /** Exact lines of the boot configuration. `{count}` is the number of chip selects, `{selects}` their pins as parameters, `{hz}` the clock,
   *  `{sda}`, `{scl}` and `{pin}` the GPIO numbers, `{bus}` a free bus number, `{no_miso}` a parameter for an SPI bus that is not read. */
  readonly lines: readonly string[];
  /** Pins that it takes, used or not: another entry is chosen where something else is on them. */
  readonly claims?: readonly string[];
  /** Only where its lines are on these pins. */
  readonly pins?: PinChoice;
  /** Only where the selects are the controller's own: any of them, or the first ones in their order. */
  readonly selects?: 'any-own' | 'first-own';
  /** Only for so many selects at most. */
  readonly most?: number;
}

/** Two-terminal components of a chip circuit, with the unit of their value: F, Ω, Hz. */
export const CHIP_COMPONENTS = { capacitor: 'F', resistor: 'Ω', crystal: 'Hz' } as const;

/** A component that a bare chip needs, between two of its pins. */
export interface ChipComponent {
  /** Reference designator: C1, R1, Y1. */
  readonly name: string;
  readonly kind: keyof typeof CHIP_COMPONENTS;
  /** In farads, ohms or hertz. */
  readonly value: number;
  readonly ends: readonly [string, string];
  readonly note?: string;
}

/** A connector of a bare chip; pins of the connector that are left open have no chip pin. */
export interface ChipConnector {
  readonly name: string;
  readonly title: string;
  readonly pins: readonly { readonly number: number; readonly label: string; readonly pin?: string }[];
}

export const USB_CONNECTORS = ['USB-C', 'micro-USB', 'mini-USB', 'USB-B'] as const;

/** A microcontroller board: all facts about it. */
export interface BoardSheet {
  readonly kind: 'board';
  readonly schema: 1;
  readonly id: string;
  readonly version: number;
  readonly chip: string;
  readonly form: string;
  readonly title: string;
  readonly summary: string;
  readonly system: 'bare' | 'linux';
  readonly logicRail: string;
  /** What tells the board apart by sight, and what people call its family. */
  readonly traits?: Sourced & { readonly usb?: (typeof USB_CONNECTORS)[number]; readonly words?: readonly string[] };
  /** Its front, to scale; without it a plain one is drawn from the headers. */
  readonly shape?: SourcedShape;
  readonly headers: Sourced & { readonly list: readonly Header[] };
  readonly pins: Sourced & { readonly list: readonly BoardPin[] };
  readonly controllers: Sourced & { readonly list: readonly Controller[] };
  /** The usual buses, of each kind the first choice first, and the usual pin of a one-wire bus. */
  readonly usual?: Sourced & { readonly list: readonly UsualBus[]; readonly oneWire?: readonly string[] };
  readonly rails: Sourced & { readonly list: readonly Rail[] };
  readonly electrical: Sourced & {
    readonly vdd: Range;
    readonly vihMin: LevelFact;
    readonly vilMax: LevelFact;
    /** Guaranteed levels at a test current, as a pin is after reset. The current is no limit: that is `pinMilliamps`. */
    readonly vohMin: DriveFact;
    readonly volMax: DriveFact;
    readonly inputMaxAboveSupply: number;
    readonly pinCapacitancePicofarads?: number;
    readonly pullUpOhms?: Range;
    readonly pullDownOhms?: Range;
    readonly outputOhms?: Range;
    /** Drive strengths that a program can set: the low level that is guaranteed at each, and which of them a pin has after reset. */
    readonly driveSettings?: readonly DriveSetting[];
    /** Most that one pin may give or take: the recommended current where the sheet states one, else the absolute maximum. */
    readonly pinMilliamps: number;
    readonly totalMilliamps?: number;
    readonly portSums?: readonly { readonly ports: string; readonly sinkMilliamps: number; readonly sourceMilliamps?: number }[];
    readonly resetState: string;
  };
  /** The analog inputs of the chip; those of other means have facts of their own. */
  readonly analog?: Sourced & {
    readonly bits: number;
    /** Readings follow the supply, or a reference of the chip that does not. */
    readonly reference: 'supply' | 'internal';
    /** Where readings are right, where that is not all of the supply. */
    readonly volts?: Range;
    /** Most resistance that a source may have. */
    readonly sourceOhms?: number;
  };
  readonly memory: Sourced & {
    readonly ramBytes: number;
    readonly flashBytes: number;
    readonly eepromBytes: number;
    /** What the runtime, its stack and the radio take before the program has any. */
    readonly runtimeRamBytes?: number;
    readonly runtimeFlashBytes?: number;
    readonly runtimeNote?: string;
  };
  readonly onBoard: Sourced & {
    readonly list: readonly { readonly what: string; readonly pin: string; readonly note: string }[];
    readonly parts?: readonly OnBoardPart[];
  };
  /** Pin numbering in programs: GPIO numbers, digital numbers of the board (`numbers`, where the label is not D plus the number), or
   *  ports with bits, without a single number. */
  readonly programPins?: Sourced & {
    readonly numbering: 'gpio' | 'board' | 'port';
    readonly numbers?: { readonly [pin: string]: number };
  };
  /** That MicroPython runs on the board, with pins by GPIO number or by the name of their port. */
  readonly microPython?: Sourced;
  /** How fast a program makes buses and PWM of its own on any pins: clocks in hertz, serial lines in baud, PWM with 8 bits in hertz. Absent
   *  values: not usual on this chip. */
  readonly software?: Sourced & {
    readonly spiHz: number;
    readonly i2cHz?: number;
    readonly uartBaud?: number;
    readonly pwmHz?: number;
  };
  /** The board's radio, the ADC units unusable while it is in use, and its current from the logic rail. */
  readonly radio?: Sourced & {
    readonly kinds: string;
    readonly blocksAdc: readonly string[];
    readonly own?: OwnCurrent;
    readonly note?: string;
  };
  /** What must be switched on before a controller exists, on boards with an operating system. */
  readonly enabling?: Sourced & { readonly list: readonly Enabling[] };
  /** What a bare chip needs in order to run, whatever is connected to it; absent on boards that carry it. `settings` are fuses or
   *  configuration bits, as instructions. */
  readonly chipCircuit?: Sourced & {
    readonly components: readonly ChipComponent[];
    readonly connectors?: readonly ChipConnector[];
    readonly settings: readonly string[];
  };
  /** Facts left out because no source confirms them. */
  readonly unknown: readonly string[];
}

/** A logic threshold: a share of the supply, or volts. */
export type LevelFact = { readonly ratio: number } | { readonly volts: number };
/** An output level and the current at which it holds. */
export interface DriveFact {
  readonly volts: number;
  readonly atMilliamps: number;
}
