import { getOrThrow, orThrow } from '../collections/orThrow';
import { abilitiesOf, type Ability } from '../assign/model/abilities';
import { ontoBoard, type OntoBoard } from '../assign/ontoBoard';
import type { AssignOptions } from '../assign/assignPins';
import type { Costs } from '../assign/model/instance';
import { isAboutFacts, type Finding } from '../checks/engine/check';
import { isLackOfHelper } from '../checks/engine/registry';
import type { Edit } from '../plan/edit';
import type { Plan, TerminalKey } from '../plan/plan';
import { CONTROLLER_KINDS, type ControllerKind } from '../sheets/roles';
import { memoryLedger } from '../displays/memory';
import { notedSheets } from '../sheets/notedSheets';
import { partSheet, type Sheets } from '../sheets/sheetIndex';
import { contextOf, reviewPlan } from './review';

/** What a board still has when the plan is on it. */
export interface HeadRoom {
  /** Signal pins without a wire, the reserved ones left out. */
  readonly pins: number;
  readonly total: number;
  readonly adc: number;
  readonly pwm: number;
  readonly interrupt: number;
  /** Controllers of the chip that no part uses. */
  readonly controllers: { readonly [K in ControllerKind]: number };
}

export interface BoardFit {
  readonly board: string;
  /** `fits`: all terminals connected without errors; `clashes`: all connected, with errors; `open`: proved that a terminal cannot be
   *  connected; `unknown`: search stopped before a proof. */
  readonly verdict: 'fits' | 'clashes' | 'open' | 'unknown';
  readonly open: readonly TerminalKey[];
  readonly proved: boolean;
  readonly costs: Costs;
  readonly findings: readonly Finding[];
  readonly headRoom: HeadRoom;
  /** Frame buffers that must be in RAM, and the RAM of the chip, in bytes. */
  readonly memory: { readonly neededBytes: number; readonly ramBytes: number };
  readonly kept: number;
  readonly lostLocks: readonly TerminalKey[];
  readonly left: readonly string[];
  /** The edits that change to this board; empty for the present board with assigned pins. */
  readonly edits: readonly Edit[];
  readonly plan: Plan;
}

function headRoomOf(plan: Plan, sheets: Sheets): HeadRoom {
  const { board, nets, buses } = orThrow(contextOf(plan, sheets), 'board sheet');
  const usable = board.ioPins.filter((pin) => pin.grade !== 'reserved');
  const free = usable.filter((pin) => !nets.byPin.has(pin.id));
  const having = (ability: Ability) => free.filter((pin) => abilitiesOf(board, pin).has(ability)).length;
  const used = new Set(buses.map((bus) => bus.controller));
  const unused = (kind: ControllerKind) =>
    board.sheet.controllers.list.filter((c) => c.kind === kind && !c.software && !used.has(c.id)).length;
  const [i2c, spi, uart] = CONTROLLER_KINDS.map(unused) as [number, number, number];
  return {
    pins: free.length,
    total: usable.length,
    adc: having('adc'),
    pwm: having('pwm'),
    // A shared interrupt serves several pins, so pins are counted.
    interrupt: free.filter((pin) => pin.interrupts?.length).length,
    controllers: { i2c, spi, uart },
  };
}

/** What pictures take of the RAM; `isOver` where those that must be kept whole do not go in. */
function memoryOf(plan: Plan, sheets: Sheets): BoardFit['memory'] & { readonly isOver: boolean } {
  const { usedBytes, ramBytes, lines } = orThrow(memoryLedger(plan, sheets), 'board sheet');
  const mustStay = plan.placements.filter((p) => partSheet(sheets, p.sheet)?.sheet.memory?.required).map(({ id }) => id);
  const least = lines.reduce((sum, line) => sum + (mustStay.includes(line.placement) ? line.bytes : 0), 0);
  return { neededBytes: usedBytes, ramBytes, isOver: least > ramBytes };
}

function fitFrom(onto: Pick<OntoBoard, 'edits' | 'plan' | 'settlement' | 'kept' | 'lostLocks' | 'left'>, sheets: Sheets): BoardFit {
  const { plan, settlement } = onto;
  const board = getOrThrow(sheets.boards, plan.board.id).sheet;
  const result = reviewPlan(plan, sheets);
  const findings = result.ok ? result.review.findings.filter((f) => !isAboutFacts(f)) : [];
  const { isOver, ...memory } = memoryOf(plan, sheets);
  const clashes = findings.some((f) => f.level === 'clash' && !isLackOfHelper(f)) || isOver;
  const stays = settlement.open.length > 0;
  return {
    board: board.id,
    verdict: stays ? (settlement.bound.unwired > 0 ? 'open' : 'unknown') : clashes ? 'clashes' : 'fits',
    open: settlement.open,
    proved: settlement.proved,
    costs: settlement.costs,
    findings,
    headRoom: headRoomOf(plan, sheets),
    memory,
    kept: onto.kept,
    lostLocks: onto.lostLocks,
    left: onto.left,
    edits: onto.edits,
    plan,
  };
}

/** How the parts of a plan fit on a board, assigned and reviewed there. Undefined if the board is unknown. */
export function boardFit(plan: Plan, kept: Sheets, boardId: string, options: AssignOptions = {}): BoardFit | undefined {
  const sheets = notedSheets(kept, plan.benchNotes);
  const onto = ontoBoard(plan, sheets, boardId, options);
  return onto && fitFrom(onto, sheets);
}

const VERDICTS: readonly BoardFit['verdict'][] = ['fits', 'clashes', 'unknown', 'open'];
const count = (fit: BoardFit, level: Finding['level']) => fit.findings.filter((f) => f.level === level).length;

/** Best first: fitting boards, then fewer unconnected terminals, fewer errors and warnings, fewer pins with caveats, more free pins,
 *  then by ID. */
export function compareFits(a: BoardFit, b: BoardFit): number {
  return (
    VERDICTS.indexOf(a.verdict) - VERDICTS.indexOf(b.verdict) ||
    a.open.length - b.open.length ||
    count(a, 'clash') - count(b, 'clash') ||
    count(a, 'risk') - count(b, 'risk') ||
    a.costs.caution - b.costs.caution ||
    b.headRoom.pins - a.headRoom.pins ||
    (a.board < b.board ? -1 : 1)
  );
}
