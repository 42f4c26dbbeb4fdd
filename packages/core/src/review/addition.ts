import { orThrow } from '../collections/orThrow';
import { proposeWires } from '../assign/proposeWires';
import { assignPins, type PinAssignment } from '../assign/assignPins';
import type { Finding } from '../checks/engine/check';
import { isLackOfHelper } from '../checks/engine/registry';
import { isSecondGround } from '../nets/grounds';
import { ledReports } from '../electrics/reports/ledReport';
import { setDriversOf } from '../electrics/reports/setDrivers';
import { memoizeByPair } from '../memo/memoizeByPair';
import { feedRail } from '../nets/feedRail';
import { findNets } from '../nets/nets';
import { openTerminals } from '../nets/openTerminals';
import { applyEdits } from '../plan/applyEdits';
import { boardOf, type Edit } from '../plan/edit';
import { newPlacement } from '../plan/newPlacement';
import { type Plan, splitKey, type TerminalKey, terminalKey, type WireEnd } from '../plan/plan';
import type { PartSheet } from '../sheets/partSheet';
import type { Role } from '../sheets/roles';
import { notedSheets } from '../sheets/notedSheets';
import type { Sheets } from '../sheets/sheetIndex';
import { usedPins } from './ledgers';
import { contextOf, planFindingsOf } from './review';
import { chainEdits, chainTail } from './chainOn';
import { previewOf } from './previewEdits';

/** What adding a part, wired where it fits, would do to a plan. */
export interface Addition {
  readonly part: string;
  readonly placement: string;
  /** The part of its kind that it follows in a chain. */
  readonly after?: string;
  /** Adds the part, then its wires. */
  readonly edits: readonly Edit[];
  /** Signal pins that are free now and would not be. */
  readonly pins: number;
  /** Terminals of other parts whose wires must give way. */
  readonly moved: readonly TerminalKey[];
  /** Needed terminals of the new part for which nothing is left, whatever is moved. */
  readonly open: readonly TerminalKey[];
  /** Whether it is shown that nothing less can be moved or left open. */
  readonly proved: boolean;
  readonly added: readonly Finding[];
  readonly plan: Plan;
}

/** Search limit in nodes, because additions are computed by the hundred. */
const NODES = 400;

export const ADDITION_VERDICTS = ['fits', 'with', 'moves', 'risk', 'no'] as const;
/** `fits`: without other changes; `with`: with helpers or components that are added in one step; `moves`: other wires must move; `risk`: it works, with findings below error; `no`: a terminal cannot
 *  be connected, or an error. */
export type AdditionVerdict = (typeof ADDITION_VERDICTS)[number];

/** What an addition comes to. */
export function additionVerdict({ open, added, moved }: Addition): AdditionVerdict {
  if (open.length > 0 || added.some((f) => f.level === 'clash' && !isLackOfHelper(f))) return 'no';
  if (added.some((f) => f.level !== 'hint')) return 'risk';
  return moved.length > 0 ? 'moves' : 'fits';
}

/** Whether every wire can stay. In a plan with a pin conflict, assignment would also solve that, which is not the purpose of adding a
 *  part. */
const isSound = memoizeByPair(
  (plan: Plan, sheets: Sheets): boolean => assignPins(plan, sheets, { only: '', nodes: NODES })?.costs.moved === 0,
);

/** Assigns the new part without moving wires if possible, otherwise together with all wires. */
function settledAddition(plan: Plan, bare: Plan, placement: string, sheets: Sheets): PinAssignment | undefined {
  const beside = orThrow(assignPins(bare, sheets, { only: placement, freeze: true, nodes: NODES }), 'board sheet');
  if (beside.costs.unwired === 0 && beside.costs.moved === 0) return beside;
  const whole = isSound(plan, sheets) ? assignPins(bare, sheets, { only: placement, nodes: NODES }) : undefined;
  // A part that is there never loses its place to one that comes: it may move, but not go.
  return whole?.open.every((key) => splitKey(key).placement === placement) ? whole : undefined;
}

function openAfter(plan: Plan, placement: string, sheets: Sheets): readonly TerminalKey[] {
  const { terminals, nets } = orThrow(contextOf(plan, sheets), 'board sheet');
  return openTerminals(
    terminals.filter((t) => t.placement.id === placement),
    nets,
  ).map((t) => t.key);
}

/** The other circuits of a part that work only with both of their terminals, such as a backlight: supply and ground, where neither is
 *  wired yet. */
function pairsOf(wired: Plan, id: string, part: PartSheet, sheets: Sheets): readonly Edit[] {
  const rail = feedRail(wired, sheets, id);
  const end = (role: Role): WireEnd | undefined =>
    role === 'ground' ? { to: 'ground' } : role === 'supply.vcc' && rail !== undefined ? { to: 'rail', rail } : undefined;
  return part.terminals.list.flatMap((t): Edit[] => {
    const to = t.ifOpen?.with === undefined || wired.wires[terminalKey(id, t.id)] ? undefined : end(t.role);
    return to ? [{ kind: 'wire', placement: id, terminal: t.id, end: to }] : [];
  });
}

/** The resistors that the sheet of a new part requires in or at its wires. */
function ownResistors(wired: Plan, id: string, part: PartSheet): readonly Edit[] {
  return part.terminals.list.flatMap(({ id: terminal, seriesOhms, pullDownOhms }): Edit[] => {
    if (!wired.wires[terminalKey(id, terminal)]) return [];
    const at = { placement: id, terminal };
    return [
      ...(seriesOhms === undefined ? [] : [{ kind: 'series' as const, ...at, ohms: seriesOhms }]),
      ...(pullDownOhms === undefined ? [] : [{ kind: 'pull' as const, ...at, pull: { ohms: pullDownOhms, to: 'ground' as const } }]),
    ];
  });
}

/** The resistors that LEDs of a new part need where they are wired. */
function resistorsFor(wired: Plan, id: string, part: PartSheet, sheets: Sheets): readonly Edit[] {
  if (!part.currentSet && !part.terminals.list.some((t) => t.led)) return [];
  const leds = ledReports(wired, sheets).map((led) => ({ ...led, key: led.resistorAt }));
  return [...leds, ...setDriversOf(wired, sheets)].flatMap(({ placement, key, ohms, fitOhms }): Edit[] =>
    placement === id && key !== undefined && ohms === undefined && fitOhms !== undefined
      ? [{ kind: 'series', ...splitKey(key), ohms: fitOhms }]
      : [],
  );
}

function applied(plan: Plan, edits: readonly Edit[], sheets: Sheets): Plan {
  const result = applyEdits(plan, edits, sheets);
  if (!result.ok) throw new Error(`A proposed addition does not apply: ${JSON.stringify(result.problem)}`);
  return result.plan;
}

/** The addition of one part, with its pins assigned so that wires move only if necessary. Remaining terminals are connected as far as
 *  possible, for the checks to report. Undefined if the board is unknown.
 *  @param isApart wires it to pins of its own where it could follow a chain */
export function additionOf(plan: Plan, kept: Sheets, part: PartSheet, isApart = false): Addition | undefined {
  const sheets = notedSheets(kept, plan.benchNotes);
  const board = boardOf(plan, sheets);
  if (!board) return undefined;
  const placement = newPlacement(plan, part);
  // What chains goes on with the chain that is there: that takes no pins.
  const tail = isApart ? undefined : chainTail(plan, sheets, part);
  const add: readonly Edit[] = [{ kind: 'add-placement', placement }, ...(tail ? chainEdits(placement.id, part, tail) : [])];
  const bare = applyEdits(plan, add, sheets);
  if (!bare.ok) return undefined;
  const settled = settledAddition(plan, bare.plan, placement.id, sheets);
  const rest = settled?.open.length === 0 ? [] : proposeWires({ plan: settled?.plan ?? bare.plan, sheets, board }, placement);
  const wired = applied(settled?.plan ?? bare.plan, rest, sheets);
  // What belongs beside a part: its capacitors, and its further grounds.
  const beside: readonly Edit[] = [
    ...(part.supply?.capacitors ? [{ kind: 'capacitors' as const, placement: placement.id, there: true }] : []),
    ...part.terminals.list
      .filter(isSecondGround)
      .map((t): Edit => ({ kind: 'wire', placement: placement.id, terminal: t.id, end: { to: 'ground' } })),
  ];
  const paired = pairsOf(wired, placement.id, part, sheets);
  const last = [
    ...beside,
    ...paired,
    ...ownResistors(applied(wired, paired, sheets), placement.id, part),
    ...resistorsFor(wired, placement.id, part, sheets),
  ];
  const edits = [...add, ...(settled?.edits ?? []), ...rest, ...last];
  const preview = previewOf(plan, applied(wired, last, sheets), sheets, planFindingsOf);
  return {
    part: part.id,
    placement: placement.id,
    ...(tail ? { after: tail.id } : {}),
    edits,
    pins: usedPins(board, findNets(preview.plan, sheets)) - usedPins(board, findNets(plan, sheets)),
    moved: preview.wires.flatMap(({ terminal, from }) => (from ? [terminal] : [])),
    open: settled?.open ?? openAfter(preview.plan, placement.id, sheets),
    proved: settled?.proved === true,
    added: preview.added,
    plan: preview.plan,
  };
}
