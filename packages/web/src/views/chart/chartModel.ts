import type { PlanContext } from '@roof-chart/core/plan/planContext';
import { getOrThrow, orThrow } from '@roof-chart/core/collections/orThrow';
import { endFit } from '@roof-chart/core/assign/fit/endFit';
import { isFreeFor } from '@roof-chart/core/assign/fit/freePins';
import { type PinSet, pinSetsOf } from '@roof-chart/core/assign/fit/pinSets';
import type { Finding } from '@roof-chart/core/checks/engine/check';
import type { Bus } from '@roof-chart/core/nets/buses';
import { findNets, type Net, type Nets } from '@roof-chart/core/nets/nets';
import { singleLed } from '@roof-chart/core/nets/leds';
import { type PlanTerminal, planTerminals } from '@roof-chart/core/nets/terminals';
import { choicesOf } from '@roof-chart/core/sheets/boardSheet';
import type { PartTerminal } from '@roof-chart/core/sheets/partSheet';
import { CONTROLLER_KINDS, type ControllerKind, PIN_ROLES } from '@roof-chart/core/sheets/roles';
import type { IndexedBoard } from '@roof-chart/core/sheets/sheetIndex';
import type { AxisBracket } from '../../ui/chart/ChartAxis';
import type { Choice } from '../../ui/chart/ChartCells';
import type { NetLine } from '../../ui/chart/ChartUnderlay';
import type { ColumnBlock } from '../../ui/chart/layout';
import type { WireScope } from '../../state/sessionSlice';
import { columnOfEnd, endOfColumn } from './columns';

export interface ChartRow {
  readonly item: PlanTerminal;
  readonly could: readonly string[];
  readonly at: string | null;
  readonly mark: 'does' | 'locked' | 'clash';
}

export interface ChartGroup {
  readonly id: string;
  readonly rows: readonly ChartRow[];
}

const isPower = (terminal: PartTerminal) => terminal.role === 'supply.vcc' || terminal.role === 'ground' || terminal.role === 'supply.out';

/** Whether a terminal is shown in a scope. Terminals for external circuits, such as relay contacts, are shown only among all; the anode of an
 *  LED stays a signal at a supply too, so that its row does not go away while it is moved. */
export function inScope({ part, terminal }: Pick<PlanTerminal, 'part' | 'terminal'>, scope: WireScope): boolean {
  if (terminal.role === 'external') return scope === 'all';
  return scope === 'all' || (scope === 'supplies') === (isPower(terminal) && singleLed(part)?.anode !== terminal.id);
}

const couldTables = new WeakMap<IndexedBoard, WeakMap<PartTerminal, readonly string[]>>();

/** Columns a terminal could go to, by the sheets alone: the same array for the same terminal. */
function couldColumns(board: IndexedBoard, item: PlanTerminal, blocks: readonly ColumnBlock[]): readonly string[] {
  let table = couldTables.get(board);
  if (!table) couldTables.set(board, (table = new WeakMap()));
  let could = table.get(item.terminal);
  if (!could) {
    could = markable(blocks).filter((id) => {
      const end = endOfColumn(board, id);
      return end && endFit(board, item.part, item.terminal, end).verdict !== 'cannot';
    });
    table.set(item.terminal, could);
  }
  return could;
}

/** Columns that carry marks: rails and signal pins; ground and supply positions on the headers only show where they are. */
function markable(blocks: readonly ColumnBlock[]): readonly string[] {
  return blocks.flatMap((block) => block.columns.filter((c) => c.tone !== 'quiet' && !c.sameAs).map((c) => c.id));
}

const MARK_CODES = new Set(['pin-cannot', 'pin-reserved', 'bus-pair-illegal', 'supply-wrong']);

/** Terminals whose own wire a finding calls wrong. */
function wrongTerminals(findings: readonly Finding[]): ReadonlySet<string> {
  return new Set(findings.filter((f) => f.level === 'clash' && MARK_CODES.has(f.code)).flatMap((f) => f.place.terminals ?? []));
}

const isClash = (net: Net | undefined): boolean => net !== undefined && net.pins.length > 0 && net.signals.length > 1;

const NOWHERE: readonly string[] = [];

/** Rows of the chart, part by part. */
export function chartGroups(
  { plan, sheets, board }: PlanContext,
  scope: WireScope,
  findings: readonly Finding[],
  blocks: readonly ColumnBlock[],
): readonly ChartGroup[] {
  const nets = findNets(plan, sheets);
  const wrong = wrongTerminals(findings);
  const groups = new Map<string, ChartRow[]>(plan.placements.map((p) => [p.id, []]));
  for (const item of planTerminals(plan, sheets)) {
    if (!inScope(item, scope)) continue;
    const clash = item.wire?.end.to === 'pin' && (isClash(nets.byTerminal.get(item.key)) || wrong.has(item.key));
    getOrThrow(groups, item.placement.id).push({
      item,
      // What is soldered stays: rings would invite to move it.
      could: item.placement.onBoard ? NOWHERE : couldColumns(board, item, blocks),
      at: item.wire ? columnOfEnd(item.wire.end) : null,
      mark: clash || (wrong.has(item.key) && item.wire) ? 'clash' : item.wire?.locked ? 'locked' : 'does',
    });
  }
  return [...groups].filter(([, rows]) => rows.length > 0).map(([id, rows]) => ({ id, rows }));
}

/** One line for each column that has marks, down to its lowest row in sight. */
export function chartLines(groups: readonly ChartGroup[], nets: Nets): readonly NetLine[] {
  const lowest = new Map<string, { row: string; item: PlanTerminal }>();
  for (const { rows } of groups) for (const row of rows) if (row.at) lowest.set(row.at, { row: row.item.key, item: row.item });
  return [...lowest].map(([column, { row, item }]) => {
    const net = nets.byTerminal.get(item.key);
    const pinned = net?.pins.includes(column) ?? false;
    const tone = pinned && isClash(net) ? 'clash' : pinned && net && net.terminals.length > 1 ? 'bus' : 'net';
    return { id: column, column, toRow: row, tone };
  });
}

export function clashColumns(nets: Nets): ReadonlySet<string> {
  return new Set(nets.list.filter(isClash).flatMap((net) => net.pins));
}

/** All pin sets of a controller with few; with free pin choice only the default ones, because the rings show the rest. */
function customarySets(board: IndexedBoard, kind: ControllerKind): readonly PinSet[] {
  return pinSetsOf(board, kind).filter(({ controller, pins }) => {
    const legal = getOrThrow(board.controllers, controller).legal;
    return legal.rule !== 'any-pin' || choicesOf(getOrThrow(board.controllers, controller)).includes(pins);
  });
}

/** Brackets: buses in use solid; choices faint, of the focused terminal's kind, else of I2C. */
export function chartBrackets(board: IndexedBoard, buses: readonly Bus[], focused: PartTerminal | undefined): readonly AxisBracket[] {
  const kind = (focused && PIN_ROLES[focused.role]?.line?.kind) ?? 'i2c';
  const title = (id: string) => board.controllers.get(id)?.title ?? id;
  const chosen = buses.flatMap((bus) =>
    bus.controller ? [{ id: bus.id, label: title(bus.controller), columns: Object.values(bus.pins), chosen: true }] : [],
  );
  const choices = CONTROLLER_KINDS.filter((k) => k === kind).flatMap((k) =>
    customarySets(board, k).map((set) => ({
      id: `${set.controller}:${Object.values(set.pins).join()}`,
      label: title(set.controller),
      columns: Object.values(set.pins),
      chosen: false,
    })),
  );
  return [...chosen, ...choices];
}

/** What each column means for the focused terminal; columns that are absent cannot serve. */
export function chartChoices(board: IndexedBoard, nets: Nets, item: PlanTerminal, could: readonly string[]): ReadonlyMap<string, Choice> {
  return new Map(
    could.map((id) => {
      const end = orThrow(endOfColumn(board, id), 'column');
      if (end.to === 'pin' && !isFreeFor(nets, end.pin, item)) return [id, 'taken'];
      return [id, endFit(board, item.part, item.terminal, end).verdict === 'costs' ? 'costs' : 'free'];
    }),
  );
}
