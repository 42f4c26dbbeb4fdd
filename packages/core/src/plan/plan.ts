import type { BenchNotes } from '../sheets/benchNote';
import type { SheetRef } from '../sheets/sheetIndex';
import type { SoftwareBusId } from '../sheets/softwareBuses';

/** The plan document: a value. Nothing in it is derived; everything shown comes from plan and sheets. */

export type { SheetRef };

export const WIRE_COLOURS = ['red', 'black', 'yellow', 'blue', 'green', 'orange', 'white', 'grey', 'violet', 'brown'] as const;
export type WireColour = (typeof WIRE_COLOURS)[number];

/** Where a wire goes: a board pin, a supply rail, ground, another part's terminal, the wiper of a trimmer between the part's own supply and
 *  ground, or the middle of a fixed divider between them, in ohms. */
export type WireEnd =
  | { readonly to: 'pin'; readonly pin: string }
  | { readonly to: 'rail'; readonly rail: string }
  | { readonly to: 'ground' }
  | { readonly to: 'terminal'; readonly placement: string; readonly terminal: string }
  | { readonly to: 'trimmer'; readonly ohms: number }
  | { readonly to: 'divider'; readonly topOhms: number; readonly bottomOhms: number };

export interface Wire {
  readonly end: WireEnd;
  readonly colour: WireColour;
  readonly locked: boolean;
}

export interface Placement {
  readonly id: string;
  readonly sheet: SheetRef;
  readonly name: string;
  /** States of the solder jumpers that differ from the sheet's default. */
  readonly straps: { readonly [strap: string]: string };
  /** Soldered to the board: it cannot be removed, and its wires are fixed. */
  readonly onBoard?: true;
  /** The pull-ups on the module are disconnected, or will be. */
  readonly pullUpsCut?: true;
}

/** An added resistor from a line to its supply or to ground. */
export interface Pull {
  readonly ohms: number;
  readonly to: 'supply' | 'ground';
}

/** Resistor values on hand: a series of preferred values, or a custom list in ohms. */
export interface ValuesOnHand {
  readonly series: 'E3' | 'E6' | 'E12' | 'E24' | 'E48' | 'E96' | 'E192' | 'own';
  readonly own?: readonly number[];
}

/** The resistors of keys on one analog pin, in ohms: the one that holds the pin while no key is down, and the row between the keys. */
export interface LadderValues {
  readonly pull: number;
  /** From the first key on; one fewer than keys. */
  readonly row: readonly number[];
}

/** A picture that the program brings along for a display, as it was made into bytes. */
export interface PlanPicture {
  readonly name: string;
  readonly width: number;
  readonly height: number;
  readonly bytes: number;
}

/** How a display is used: what it shows, how large, and how much of its picture the program keeps in memory. */
export interface Readout {
  readonly text?: string;
  /** Text scale; 1 if absent. */
  readonly scale?: number;
  readonly picture?: 'whole' | 'part' | 'none';
  /** A text that is longer than the display runs through it. */
  readonly scroll?: true;
  /** Custom characters: for digits one number with segment a as bit 0; for character displays eight rows of five dots. */
  readonly glyphs?: { readonly [character: string]: readonly number[] };
  readonly pictures?: readonly PlanPicture[];
}

/** The plan as it was when it was last built: where each wire went, with the names that it had then. */
export interface Built {
  /** The day, as 2026-11-26. */
  readonly date: string;
  /** `part` is the sheet of the part; plans that were built before it was kept have none. */
  readonly wires: {
    readonly [key: TerminalKey]: { readonly name: string; readonly end: WireEnd; readonly to: string; readonly part?: string };
  };
}

/** How much of a part there is, and how much of it is on at once. */
export interface LoadUse {
  /** How many units: pixels of a strip. */
  readonly units?: number;
  /** Share of the peak that is taken at the same time as everything else, from 0 to 1. */
  readonly share?: number;
}

export const DRIVER_KINDS = ['npn', 'pnp', 'nmos', 'pmos'] as const;
/** A transistor between a pin and a load: to ground (`npn`, `nmos`) or from the supply (`pnp`, `pmos`). */
export interface Driver {
  readonly kind: (typeof DRIVER_KINDS)[number];
  /** Resistor at its base or gate, in ohms. */
  readonly ohms: number;
  /** The legs of the transistor on hand, from left to right with the marked flat side towards you: E, B, C or S, G, D in that order. */
  readonly legs?: string;
}

/** The order of the legs of a transistor package. */
export const LEG_ORDERS = {
  bipolar: ['EBC', 'CBE', 'ECB', 'BCE', 'BEC', 'CEB'],
  fieldEffect: ['GDS', 'SGD', 'DGS', 'SDG', 'GSD', 'DSG'],
} as const;

export const BREADBOARD_ROWS = [30, 63] as const;

/** The breadboard that a plan is built on: its boards lie end to end, or two of them side by side with one rail strip between them; their
 *  supply rails go through or are split in the middle. */
export interface Breadboard {
  readonly rows: (typeof BREADBOARD_ROWS)[number];
  readonly boards: number;
  readonly rails: 'whole' | 'split';
  /** Of two boards; else end to end. */
  readonly arrangement?: 'side by side';
}

/** How something lies on a breadboard: in one half of it, across the gap (what is too wide for that, across two boards), the same turned half
 *  round, or not on it at all. */
export const HOLE_SIDES = ['ae', 'fj', 'across', 'turned', 'off'] as const;

/** Where the microcontroller board, a part or a component is plugged in. */
export interface HolePlace {
  readonly side: (typeof HOLE_SIDES)[number];
  /** The first of its rows, counted through all boards; absent where it is not on the breadboard. */
  readonly row?: number;
  /** The user has put it there: placing the others leaves it. */
  readonly locked?: true;
}

/** Where the user has put a module in the wiring picture: beside the board, so many modules from the top, and turned half round or not. */
export interface ModulePlace {
  readonly side: 'left' | 'right';
  readonly at: number;
  readonly turned?: true;
}

/** A wire confirmed on the bench: its end at that time, the method, and the date as 2026-11-25. */
export interface WireNote {
  readonly end: WireEnd;
  readonly words: string;
  readonly date: string;
}

/** A preference for one wire. Pin assignment meets it if possible and reports its cost. */
export interface Wish {
  /** This pin. */
  readonly pin?: string;
  /** None of these pins. */
  readonly not?: readonly string[];
  /** This controller, for the whole part: for a bus line. */
  readonly controller?: string;
}

/** How the signals of one part should lie: side by side in printed order, or on one port of the chip. */
export const TOGETHER = ['adjacent', 'port'] as const;
export type Together = (typeof TOGETHER)[number];

/** User settings of a bus; absent values follow from the sheets and defaults. */
export interface BusSettings {
  /** The clock of the program, in hertz. */
  readonly hz?: number;
  /** A pull-up added on each line, in ohms. */
  readonly addedOhms?: number;
  /** Wire of one line in all, in centimetres. */
  readonly wireCm?: number;
  /** Capacitance of a line as measured, in picofarads; it replaces the estimate. */
  readonly picofarads?: number;
}

/** `placement:terminal` */
export type TerminalKey = string;

export interface Plan {
  readonly format: 'roof-chart-plan';
  readonly formatVersion: 1;
  readonly id: string;
  readonly name: string;
  readonly board: SheetRef;
  readonly placements: readonly Placement[];
  readonly wires: { readonly [key: TerminalKey]: Wire };
  /** Wires done on the bench, each with the end it had when ticked: a moved wire is no longer done. */
  readonly ticks: { readonly [key: TerminalKey]: WireEnd };
  /** Steps of the build other than wires that are done, by the step, each with what it was when it was done: a step that has changed is no
   *  longer done. */
  readonly steps: { readonly [step: string]: string };
  readonly built: Built | null;
  /** Accepted findings by finding ID, each with its reason. */
  readonly accepted: { readonly [finding: string]: string };
  /** Facts measured, corrected or confirmed by the user; they override the sheets. */
  readonly benchNotes: BenchNotes;
  /** Buses that the program makes, on any pins. */
  readonly softwareBuses: readonly SoftwareBusId[];
  /** Terminals whose PWM the program makes, on any output. */
  readonly softwarePwm: { readonly [key: TerminalKey]: true };
  readonly wireNotes: { readonly [key: TerminalKey]: WireNote };
  readonly wishes: { readonly [key: TerminalKey]: Wish };
  /** By placement. */
  readonly together: { readonly [placement: string]: Together };
  /** By segment: the controller's name, or for what lies behind a level shifter or a channel its placement's. */
  readonly busSettings: { readonly [segment: string]: BusSettings };
  /** Resistors at single lines, by the terminal they sit at. */
  readonly pulls: { readonly [key: TerminalKey]: Pull };
  /** Resistors in single wires, by the terminal that the wire belongs to, in ohms. A pull at the same terminal sits on the far side of it,
   *  away from the part: the two are a divider for what the part sends. */
  readonly series: { readonly [key: TerminalKey]: number };
  /** Transistors that switch the load of a terminal, so that the pin drives only their base or gate. */
  readonly drivers: { readonly [key: TerminalKey]: Driver };
  /** By the placement of keys on one analog pin. */
  readonly ladders: { readonly [placement: string]: LadderValues };
  /** By placement, where it is not one of its kind at its peak. */
  readonly loads: { readonly [placement: string]: LoadUse };
  /** By the placement of a display. */
  readonly readouts: { readonly [placement: string]: Readout };
  /** Parts with the decoupling capacitors that their sheet requires. */
  readonly capacitors: { readonly [placement: string]: true };
  /** Reference designators that are kept, such as R1, by component id (see `electrics/reports/components`). A component without one has the next
   *  free number in the order of the plan. */
  readonly references: { readonly [component: string]: string };
  /** What the plan is built on; null: not on a breadboard, or not planned. */
  readonly breadboard: Breadboard | null;
  /** By what is placed: `board`, a placement, or a component's id. */
  readonly places: { readonly [item: string]: HolePlace };
  /** By placement. */
  readonly layout: { readonly [module: string]: ModulePlace };
  readonly valuesOnHand: ValuesOnHand;
  /** Update rate by placement, in Hz. */
  readonly rates: { readonly [placement: string]: number };
  /** Whether the program uses the radio of a board that has one: it may take pins' abilities away. */
  readonly radio: boolean;
}

/** Bounds that keep a hostile or broken file from hurting anybody. */
export const PLAN_LIMITS = {
  nameLength: 120,
  reasonLength: 400,
  placements: 200,
  benchNotes: 300,
  wishes: 400,
  editsPerBatch: 5000,
  pulls: 400,
  wireNotes: 800,
  series: 400,
  drivers: 200,
  loadUnits: 10_000,
  readoutText: 400,
  ownGlyphs: 8,
  pictures: 20,
  ladderKeys: 16,
  valuesOnHand: 200,
  steps: 2000,
  references: 2000,
  places: 1000,
  breadboards: 4,
} as const;

/** @example terminalKey('display-1', 'SDA') // 'display-1:SDA' */
export function terminalKey(placement: string, terminal: string): TerminalKey {
  return `${placement}:${terminal}`;
}

/** The two ids in a terminal key.
 *  @throws RangeError when the key has no colon */
export function splitKey(key: TerminalKey): { placement: string; terminal: string } {
  const colon = key.indexOf(':');
  if (colon < 0) throw new RangeError(`Invalid terminal key ${key}: expected placement:terminal`);
  return { placement: key.slice(0, colon), terminal: key.slice(colon + 1) };
}

/** Whether two wire ends are the same place. */
export function sameEnd(a: WireEnd | undefined, b: WireEnd | undefined): boolean {
  return a === b || (a !== undefined && b !== undefined && endKey(a) === endKey(b));
}

/** A wire end as one word, for comparing and as a map key. */
export function endKey(end: WireEnd): string {
  switch (end.to) {
    case 'pin':
      return `pin:${end.pin}`;
    case 'rail':
      return `rail:${end.rail}`;
    case 'ground':
      return 'ground';
    case 'terminal':
      return `terminal:${end.placement}:${end.terminal}`;
    case 'trimmer':
      return `trimmer:${end.ohms}`;
    case 'divider':
      return `divider:${end.topOhms}:${end.bottomOhms}`;
  }
}

/** What a plan has of everything that came after its parts and wires: nothing, and the usual. */
export const PLAN_DEFAULTS = {
  steps: {},
  built: null,
  accepted: {},
  benchNotes: {},
  wireNotes: {},
  wishes: {},
  together: {},
  busSettings: {},
  softwareBuses: [],
  softwarePwm: {},
  pulls: {},
  series: {},
  drivers: {},
  ladders: {},
  loads: {},
  readouts: {},
  capacitors: {},
  references: {},
  breadboard: null,
  places: {},
  layout: {},
  valuesOnHand: { series: 'E12' },
  rates: {},
  // A board with a radio is most often bought for it; to leave it on is the careful assumption.
  radio: true,
} as const satisfies Partial<Plan>;

/** An empty plan on a board. The id and the name come from the caller (the core has no chance and no clock). */
export function newPlan(id: string, name: string, board: SheetRef): Plan {
  return {
    format: 'roof-chart-plan',
    formatVersion: 1,
    id,
    name,
    board,
    placements: [],
    wires: {},
    ticks: {},
    ...PLAN_DEFAULTS,
  };
}
