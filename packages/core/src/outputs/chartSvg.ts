import { has, type With } from '../collections/has';
import { getOrThrow } from '../collections/orThrow';
import { findNets } from '../nets/nets';
import { planTerminals, type PlanTerminal } from '../nets/terminals';
import { boardOf } from '../plan/edit';
import type { Plan } from '../plan/plan';
import type { IndexedBoard, Sheets } from '../sheets/sheetIndex';
import { BRICK, INK, PAPER, QUIET, RULE, svgLine, svgPicture, svgText } from './svgText';

const COLUMN = 18;
const ROW = 20;
const HEAD = 230;
const ROOF = 96;
const EDGE = 16;

interface Column {
  readonly id: string;
  readonly label: string;
  readonly x: number;
}

/** Ground, the rails that are used, and the signal pins in the order of the headers. */
function columnsOf(board: IndexedBoard, items: readonly PlanTerminal[]): readonly Column[] {
  const rails = new Set(items.flatMap(({ wire }) => (wire?.end.to === 'rail' ? [wire.end.rail] : [])));
  const all = [
    { id: 'ground', label: 'GND' },
    ...board.sheet.rails.list
      .filter((rail) => rails.has(rail.id))
      .map((rail) => ({ id: `rail ${rail.id}`, label: rail.terminal ?? rail.label })),
    ...board.ioPins.map((pin) => ({ id: `pin ${pin.id}`, label: pin.label })),
  ];
  return all.map((column, at) => ({ ...column, x: HEAD + EDGE + at * COLUMN + COLUMN / 2 }));
}

function columnOf({ wire }: PlanTerminal, board: IndexedBoard): string | undefined {
  const end = wire?.end;
  if (end?.to === 'ground') return 'ground';
  if (end?.to === 'rail') return `rail ${end.rail}`;
  return end?.to === 'pin' ? `pin ${board.pins.get(end.pin)?.sameAs ?? end.pin}` : undefined;
}

interface Row {
  readonly item: With<PlanTerminal, 'wire'>;
  readonly y: number;
  /** Whether it is the first of its part. */
  readonly fresh: boolean;
}

/** A row of the picture: its label, and a disc in its column or what it is wired to.
 *  @param id its column */
function rowParts(
  plan: Plan,
  { item, y, fresh }: Row,
  id: string | undefined,
  { at, clashing }: { readonly at: ReadonlyMap<string, number>; readonly clashing: ReadonlySet<string> },
): readonly string[] {
  const head = [
    ...(fresh ? [svgText(EDGE, y, item.placement.name.slice(0, 24), { bold: true })] : []),
    svgText(HEAD - 6, y, item.terminal.label, { size: 11, anchor: 'end' }),
  ];
  const x = id === undefined ? undefined : at.get(id);
  if (id !== undefined && x !== undefined)
    return [...head, `<circle cx="${x}" cy="${y - 4}" r="5" fill="${clashing.has(id) ? BRICK : INK}"/>`];
  const { end } = item.wire;
  const other =
    end.to === 'terminal' ? `${plan.placements.find((p) => p.id === end.placement)?.name ?? end.placement} ${end.terminal}` : '';
  // On paper of its own, or the lines would run through it.
  const words = `→ ${other}`;
  return [
    ...head,
    `<rect x="${HEAD + EDGE - 2}" y="${y - 12}" width="${words.length * 6 + 4}" height="16" fill="${PAPER}"/>`,
    svgText(HEAD + EDGE, y, words, { size: 11, colour: QUIET }),
  ];
}

/** The Chart as an image: board pins as columns, connected terminals as rows, a disc at each connection, a line through the discs of one
 *  pin, broken and red at a pin conflict. Undefined if the board sheet is missing. */
export function chartSvg(plan: Plan, sheets: Sheets): string | undefined {
  const board = boardOf(plan, sheets);
  if (!board) return undefined;
  const items = planTerminals(plan, sheets).filter(has('wire'));
  const columns = columnsOf(board, items);
  const at = new Map(columns.map((column) => [column.id, column.x]));
  const clashing = new Set(
    findNets(plan, sheets)
      .list.filter((net) => net.signals.length > 1)
      .flatMap((net) => net.pins.map((pin) => `pin ${pin}`)),
  );
  const width = HEAD + 2 * EDGE + columns.length * COLUMN;
  const parts: string[] = [svgText(EDGE, 24, plan.name, { size: 16, bold: true }), svgText(EDGE, 42, board.sheet.title, { colour: QUIET })];
  let y = ROOF;
  let before = '';
  const rows = items.map((item): Row => {
    const fresh = item.placement.id !== before;
    before = item.placement.id;
    y += fresh ? ROW * 1.5 : ROW;
    return { item, y, fresh };
  });
  const height = y + ROW;
  for (const { id, label, x } of columns) {
    const bad = clashing.has(id);
    parts.push(
      svgLine(x, ROOF, x, height - ROW / 2, bad ? BRICK : RULE, 1, bad ? '4 3' : ''),
      svgText(x + 4, ROOF - 6, label, { size: 10, turned: -60, colour: bad ? BRICK : INK }),
    );
  }
  parts.push(svgLine(HEAD + EDGE, ROOF, width - EDGE, ROOF, INK, 3));
  const hanging = new Map<string, number[]>();
  for (const row of rows) {
    const id = columnOf(row.item, board);
    if (id !== undefined && at.has(id)) hanging.set(id, [...(hanging.get(id) ?? []), row.y]);
  }
  for (const [id, ys] of hanging) {
    const [x, bad] = [getOrThrow(at, id), clashing.has(id)];
    parts.push(svgLine(x, ROOF, x, Math.max(...ys), bad ? BRICK : INK, 1.5, bad ? '4 3' : ''));
  }
  for (const row of rows) parts.push(...rowParts(plan, row, columnOf(row.item, board), { at, clashing }));
  return svgPicture(width, height, `${plan.name}: signal chart`, parts);
}
