import { withPartRails } from './planRails';
import type { BenchNote } from '../sheets/benchNote';
import { type SoftwareBusId, withSoftwareBuses } from '../sheets/softwareBuses';
import { boardSheet, partSheet, type IndexedBoard, type IndexedPart, type Sheets } from '../sheets/sheetIndex';
import type {
  Breadboard,
  Built,
  BusSettings,
  ValuesOnHand,
  Driver,
  HolePlace,
  LadderValues,
  LoadUse,
  ModulePlace,
  Placement,
  Plan,
  Pull,
  Readout,
  SheetRef,
  Together,
  Wire,
  WireColour,
  WireEnd,
  WireNote,
  Wish,
} from './plan';

/** A part soldered to a board: its place in the plan's list, and its wires by terminal. */
export interface Soldered {
  readonly at: number;
  readonly placement: Placement & { readonly onBoard: true };
  readonly wires: { readonly [terminal: string]: Wire };
}

/** Everything that can be done to a plan, as serialisable records. */
export type Edit =
  | { readonly kind: 'rename-plan'; readonly name: string }
  | { readonly kind: 'add-placement'; readonly placement: Placement; readonly at?: number }
  | { readonly kind: 'remove-placement'; readonly placement: string }
  | { readonly kind: 'rename-placement'; readonly placement: string; readonly name: string }
  | { readonly kind: 'move-placement'; readonly placement: string; readonly at: number }
  | {
      readonly kind: 'wire';
      readonly placement: string;
      readonly terminal: string;
      readonly end: WireEnd;
      readonly colour?: WireColour;
    }
  | { readonly kind: 'unwire'; readonly placement: string; readonly terminal: string }
  | { readonly kind: 'lock'; readonly placement: string; readonly terminal: string; readonly locked: boolean }
  | { readonly kind: 'colour'; readonly placement: string; readonly terminal: string; readonly colour: WireColour }
  | { readonly kind: 'strap'; readonly placement: string; readonly strap: string; readonly state: string }
  | { readonly kind: 'tick'; readonly placement: string; readonly terminal: string; readonly end: WireEnd | null }
  /** Another step of the build: done as it is now, or (with `null`) not done. */
  | { readonly kind: 'step'; readonly step: string; readonly done: string | null }
  /** Keeps how the plan is now as built, or (with `null`) forgets it. */
  | { readonly kind: 'built'; readonly built: Built | null }
  /** What the plan is built on; `null`: not on a breadboard. */
  | { readonly kind: 'breadboard'; readonly breadboard: Breadboard | null }
  /** Where something is plugged in; `null`: not placed. */
  | { readonly kind: 'place'; readonly item: string; readonly place: HolePlace | null }
  /** Where a module is drawn in the wiring picture; `null`: where it makes the fewest crossings. */
  | { readonly kind: 'arrange'; readonly placement: string; readonly place: ModulePlace | null }
  /** The parts soldered to the board come with it; those of the board before go. */
  | { readonly kind: 'switch-board'; readonly board: SheetRef; readonly soldered: readonly Soldered[] }
  /** `placement` is null for the board. */
  | { readonly kind: 'take-sheet'; readonly placement: string | null; readonly version: number }
  /** The value is absent if the sheet value is confirmed; `null` removes the note. */
  | { readonly kind: 'bench-note'; readonly sheet: string; readonly fact: string; readonly note: Omit<BenchNote, 'sheet' | 'fact'> | null }
  /** `null` removes the preference. */
  | { readonly kind: 'wish'; readonly placement: string; readonly terminal: string; readonly wish: Wish | null }
  | { readonly kind: 'together'; readonly placement: string; readonly how: Together | null }
  /** `segment`: a controller, or the placement (and channel) that the segment lies behind. */
  | { readonly kind: 'bus-settings'; readonly segment: string; readonly settings: BusSettings | null }
  /** A bus that the program makes: there for parts to be on, or (`on` false) gone with its settings and the preferences for it. */
  | { readonly kind: 'software-bus'; readonly bus: SoftwareBusId; readonly on: boolean }
  /** PWM of the terminal by the program instead of a timer. */
  | { readonly kind: 'software-pwm'; readonly placement: string; readonly terminal: string; readonly on: boolean }
  | { readonly kind: 'cut-pull-ups'; readonly placement: string; readonly cut: boolean }
  /** `null` removes the resistor. */
  | { readonly kind: 'wire-note'; readonly placement: string; readonly terminal: string; readonly note: WireNote | null }
  | { readonly kind: 'pull'; readonly placement: string; readonly terminal: string; readonly pull: Pull | null }
  /** A resistor in the terminal’s wire, in ohms; `null` removes it. */
  | { readonly kind: 'series'; readonly placement: string; readonly terminal: string; readonly ohms: number | null }
  /** A transistor between the terminal and its pin; `null` removes it. */
  | { readonly kind: 'driver'; readonly placement: string; readonly terminal: string; readonly driver: Driver | null }
  /** `null`: resistors unknown. */
  | { readonly kind: 'ladder'; readonly placement: string; readonly ladder: LadderValues | null }
  /** `null`: one of its kind, at its peak. */
  | { readonly kind: 'load'; readonly placement: string; readonly load: LoadUse | null }
  | { readonly kind: 'readout'; readonly placement: string; readonly readout: Readout | null }
  | { readonly kind: 'capacitors'; readonly placement: string; readonly there: boolean }
  /** The reference designator of a component; `null`: the next free number. */
  | { readonly kind: 'reference'; readonly component: string; readonly name: string | null }
  | { readonly kind: 'values-on-hand'; readonly valuesOnHand: ValuesOnHand }
  /** `null`: default rate of the part's sheet. */
  | { readonly kind: 'rate'; readonly placement: string; readonly perSecond: number | null }
  | { readonly kind: 'radio'; readonly on: boolean }
  | { readonly kind: 'accept'; readonly finding: string; readonly reason: string | null };

export type EditKind = Edit['kind'];
export type EditOf<K extends EditKind> = Extract<Edit, { kind: K }>;

/** Why an edit cannot be done: the place in the edit, what was expected there, what was found. */
export interface EditProblem {
  readonly path: string;
  readonly expected: string;
  readonly got: string;
}

export type EditResult =
  { readonly ok: true; readonly plan: Plan; readonly inverse: readonly Edit[] } | { readonly ok: false; readonly problem: EditProblem };

/** One kind of edit: applied to a plan it gives the new plan and the edits that take it back. */
export interface EditRule<K extends EditKind> {
  apply(plan: Plan, edit: EditOf<K>, sheets: Sheets): EditResult;
}

/** @example refuse('pin', 'a pin of this board', 'GP99') */
export function refuse(path: string, expected: string, got: string): EditResult {
  return { ok: false, problem: { path, expected, got } };
}

/** The placement's place in the plan, or -1. */
export function placementIndex(plan: Plan, id: string): number {
  return plan.placements.findIndex((placement) => placement.id === id);
}

/** The board sheet of the plan, if available. */
export function boardOf(plan: Plan, sheets: Sheets): IndexedBoard | undefined {
  const board = boardSheet(sheets, plan.board);
  return board && withPartRails(withSoftwareBuses(board, plan.softwareBuses), plan, sheets);
}

/** The board of a plan whose sheet is known to be there, as that of every plan that is reviewed.
 *  @throws RangeError where it is not */
export function boardOrThrow(plan: Plan, sheets: Sheets): IndexedBoard {
  const board = boardOf(plan, sheets);
  if (!board) throw new RangeError(`No sheet of the board ${plan.board.id}`);
  return board;
}

/** The part sheet of a placement, where both exist. */
export function partOf(plan: Plan, placement: string, sheets: Sheets): IndexedPart | undefined {
  const found = plan.placements.find((p) => p.id === placement);
  return found && partSheet(sheets, found.sheet);
}

/** The part sheet of a placement where both are known to exist.
 *  @throws RangeError where one does not */
export function partOrThrow(plan: Plan, placement: string, sheets: Sheets): IndexedPart {
  const part = partOf(plan, placement, sheets);
  if (!part) throw new RangeError(`No sheet of the part ${placement}`);
  return part;
}
