import { atOrThrow } from '../../collections/orThrow';
import type { IndexedBoard, Sheets } from '../../sheets/sheetIndex';
import type { PartTerminal } from '../../sheets/partSheet';
import { boardOf, type Edit, type EditProblem, type EditRule, partOf } from '../edit';
import { type Plan, splitKey, type TerminalKey, terminalKey, type Wire, type WireColour, type WireEnd } from '../plan';

const bad = (path: string, expected: string, got: string): EditProblem => ({ path, expected, got });

/** Whether a wire may end there on this board. */
export function boardEndProblem(end: WireEnd, board: IndexedBoard): EditProblem | null {
  if (end.to === 'pin') {
    const pin = board.pins.get(end.pin);
    if (!pin) return bad('end.pin', `a pin of ${board.sheet.title}`, end.pin);
    if ((pin.kind !== 'io' && !pin.control) || !pin.header) return bad('end.pin', 'a signal pin on a header', `${end.pin} (${pin.kind})`);
    // Two ids for one conductor would make two wires on one pin look like wires on two.
    if (pin.sameAs) return bad('end.pin', `${pin.sameAs}, the main position of this conductor`, end.pin);
  }
  if (end.to === 'rail' && !board.sheet.rails.list.some((rail) => rail.id === end.rail)) {
    return bad('end.rail', `a rail of ${board.sheet.title}`, end.rail);
  }
  return null;
}

/** Whether a wire may end there at all; that it makes sense is for the checks to say. */
function endProblem(plan: Plan, from: string, end: WireEnd, sheets: Sheets): EditProblem | null {
  if (end.to === 'trimmer' || end.to === 'divider') {
    const { placement, terminal } = splitKey(from);
    const isSet = partOf(plan, placement, sheets)?.terminals.get(terminal)?.bias !== undefined;
    return isSet ? null : bad('terminal', 'a terminal whose voltage a trimmer or divider sets', from);
  }
  if (end.to === 'terminal') {
    if (!partOf(plan, end.placement, sheets)?.terminals.has(end.terminal)) {
      return bad('end.terminal', 'a terminal of a part in this plan', terminalKey(end.placement, end.terminal));
    }
    return terminalKey(end.placement, end.terminal) === from ? bad('end.terminal', 'another terminal', from) : null;
  }
  const board = boardOf(plan, sheets);
  return board ? boardEndProblem(end, board) : bad('board', 'a known board sheet', plan.board.id);
}

/** A control pin accepts only compatible terminals: the board reset accepts reset lines. */
function controlProblem(plan: Plan, terminal: PartTerminal, end: WireEnd, sheets: Sheets): EditProblem | null {
  const pin = end.to === 'pin' ? boardOf(plan, sheets)?.pins.get(end.pin) : undefined;
  return pin?.control && terminal.line !== pin.control ? bad('end.pin', 'a signal pin on a header', `${pin.id} (${pin.kind})`) : null;
}

const SIGNAL_COLOURS: { readonly [role: string]: WireColour } = {
  'i2c.sda': 'blue',
  'i2c.scl': 'yellow',
  'spi.sck': 'orange',
  'spi.mosi': 'blue',
  'spi.miso': 'green',
  'spi.cs': 'grey',
};
const FREE_COLOURS: readonly WireColour[] = ['green', 'violet', 'orange', 'brown', 'grey'];

/** Default colour of a new wire: supply red, ground black, one colour per bus line, the rest in turn. */
export function defaultColour(terminal: PartTerminal, end: WireEnd): WireColour {
  if (end.to === 'ground') return 'black';
  if (end.to === 'rail') return 'red';
  return SIGNAL_COLOURS[terminal.role] ?? atOrThrow(FREE_COLOURS, terminal.number % FREE_COLOURS.length);
}

/** Supply and ground colours say what a wire carries, so they do not follow it elsewhere. */
function colourFor(terminal: PartTerminal, end: WireEnd, before: Wire | undefined): WireColour {
  return before && before.end.to === end.to ? before.colour : defaultColour(terminal, end);
}

type WireEdit = Extract<Edit, { readonly kind: 'wire' }>;

/** The result of a wire edit: the wire and its inverse. */
type Drawn =
  | { readonly ok: true; readonly key: TerminalKey; readonly wire: Wire; readonly inverse: Edit }
  | { readonly ok: false; readonly problem: EditProblem };

function drawn(plan: Plan, edit: WireEdit, sheets: Sheets): Drawn {
  const terminal = partOf(plan, edit.placement, sheets)?.terminals.get(edit.terminal);
  const key = terminalKey(edit.placement, edit.terminal);
  if (!terminal) return { ok: false, problem: bad('terminal', 'a terminal of a part in this plan', key) };
  const problem = endProblem(plan, key, edit.end, sheets) ?? controlProblem(plan, terminal, edit.end, sheets);
  if (problem) return { ok: false, problem };
  const before = plan.wires[key];
  if (before?.locked) return { ok: false, problem: bad('terminal', 'a wire that is not locked', key) };
  const wire: Wire = { end: edit.end, colour: edit.colour ?? colourFor(terminal, edit.end, before), locked: false };
  const place = { placement: edit.placement, terminal: edit.terminal };
  const inverse: Edit = before ? { kind: 'wire', ...place, end: before.end, colour: before.colour } : { kind: 'unwire', ...place };
  return { ok: true, key, wire, inverse };
}

/** Wires drawn one after another, as so many edits would, with one copy of the plan's wires for all.
 *  @returns as applyEdits */
export function applyWires(
  plan: Plan,
  edits: readonly WireEdit[],
  sheets: Sheets,
):
  | { readonly ok: true; readonly plan: Plan; readonly inverse: readonly Edit[] }
  | { readonly ok: false; readonly at: number; readonly problem: EditProblem } {
  const wires: { [key: TerminalKey]: Wire } = { ...plan.wires };
  const next: Plan = { ...plan, wires };
  const inverse: Edit[] = [];
  for (const [at, edit] of edits.entries()) {
    const result = drawn(next, edit, sheets);
    if (!result.ok) return { ok: false, at, problem: result.problem };
    wires[result.key] = result.wire;
    inverse.unshift(result.inverse);
  }
  // A plan of its own: what was looked up on the way is remembered for the one before the last wire.
  return { ok: true, plan: { ...plan, wires }, inverse };
}

export const wire: EditRule<'wire'> = {
  apply(plan, edit, sheets) {
    const result = drawn(plan, edit, sheets);
    if (!result.ok) return result;
    return { ok: true, plan: { ...plan, wires: { ...plan.wires, [result.key]: result.wire } }, inverse: [result.inverse] };
  },
};
