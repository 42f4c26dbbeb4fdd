import { firstOrThrow, lastOrThrow, orThrow } from '../../collections/orThrow';
import { componentNames } from '../../electrics/reports/components';
import { type Half, holeText, isSideBySide, rowOnBoard } from '../../outputs/holes/breadboard';
import { holePlan, type Jumper, type Lead, type PlacedItem } from '../../outputs/holes/holePlan';
import type { HolePlacement } from '../../outputs/holes/placeHoles';
import type { StepHoles } from '../../outputs/holes/stepHoles';
import type { SideOption } from '../../outputs/holes/variants';
import type { OffBoard } from '../../outputs/holes/holeItems';
import { boardOf, partOf } from '../../plan/edit';
import type { Breadboard, HolePlace, Plan } from '../../plan/plan';
import { counted } from '../../quantity/format';
import type { Sheets } from '../../sheets/sheetIndex';
import { listText, placementText } from '../names';
import { conductorName } from './wiringText';

/** What lies on a breadboard, by name.
 *  @example itemText(plan, sheets, 'display-1') // 'OLED'; of a component 'R3', of the board its chip and form */
export function itemText(plan: Plan, sheets: Sheets, item: string): string {
  if (item === 'board') return boardOf(plan, sheets)?.sheet.title ?? plan.board.id;
  if (item.startsWith('net:')) return 'Junction';
  if (item.startsWith('chip:')) return item.slice(item.indexOf('.') + 1);
  return item.includes(':') ? (componentNames(plan, sheets).get(item) ?? 'Component') : placementText(plan, item);
}

/** @example breadboardText({ rows: 63, boards: 1, rails: 'split' }) // '63 rows, split rails' */
export const breadboardText = ({ rows, boards, rails, arrangement }: Breadboard): string =>
  `${boards > 1 ? `${boards} × ` : ''}${rows} rows${arrangement ? ` ${arrangement}` : ''}, ${rails === 'split' ? 'split rails' : 'continuous rails'}`;

/** A row with its board where there are several. @example rowText(breadboard, 70) // 'B2 7' */
export function rowText(breadboard: Breadboard, row: number): string {
  const [board, local] = rowOnBoard(breadboard, row);
  return breadboard.boards > 1 ? `B${board + 1} ${local}` : String(local);
}

/** @example placeText(breadboard, { side: 'fj', row: 26 }) // 'f–j from row 26' */
export function placeText(
  breadboard: Breadboard | null,
  { side, row, overTwo }: Pick<HolePlace, 'side' | 'row'> & Pick<PlacedItem, 'overTwo'>,
): string {
  if (side === 'off' || row === undefined) return 'off the breadboard';
  const at = breadboard ? rowText(breadboard, row) : String(row);
  if (side === 'ae' || side === 'fj') return `${columnsText(side)} from row ${at}`;
  const over = overTwo ? 'across both breadboards' : 'across the gap';
  return `${over} from row ${at}${side === 'turned' ? ', turned' : ''}`;
}

const WHY: { readonly [W in OffBoard['why']]: string } = {
  leads: 'connected by its own leads, plugs or screws',
  'no pins': 'it has no two rows of pins for a breadboard',
  'double row': 'its pins are in two rows side by side, which one strip would short',
  'row distance unknown': 'its sheet does not state how far its rows of pins are apart',
  'channel pins unknown': 'its sheet does not state where the pins of its channels are',
  'rows too far apart': 'its rows of pins are so far apart that no hole stays free beside one of them',
  'needs two boards': 'its rows of pins are too far apart for one breadboard; on two side by side it has holes on both sides',
  irregular: 'its legs are not on a 2.54 mm grid',
  sockets: 'its headers are sockets on the upper side',
  chosen: 'left off',
  'no room': 'no room for it',
};

/** Why something is not on the breadboard. */
export const whyOffText = ({ why }: OffBoard): string => WHY[why];

/** The columns of a half. @example columnsText('ae') // 'a–e' */
export const columnsText = (half: Half): string => (half === 'ae' ? 'a–e' : 'f–j');

/** A half to lie in, with its board where that matters. @example sideOptionText(breadboard, { side: 'fj', rowOffset: 63 }) // 'B2 f–j' */
export function sideOptionText(breadboard: Breadboard, { side, rowOffset }: SideOption): string {
  const columns = side === 'ae' || side === 'fj' ? columnsText(side) : side;
  return isSideBySide(breadboard) ? `B${rowOnBoard(breadboard, 1 + rowOffset)[0] + 1} ${columns}` : columns;
}

/** Length of wire, in rows and centimetres. @example wireLengthText(214) // '214 rows of wire (54 cm)' */
export const wireLengthText = (pitches: number): string => `${counted(pitches, 'row')} of wire (${Math.round(pitches * 0.254)} cm)`;

/** The end of a lead by its part and label; of the board its pin. */
export function leadEndText(plan: Plan, sheets: Sheets, { module, terminal }: Lead['end']): string {
  if (module === 'board') return boardOf(plan, sheets)?.pins.get(terminal)?.label ?? terminal;
  if (module.includes(':')) return itemText(plan, sheets, module);
  return `${placementText(plan, module)} ${partOf(plan, module, sheets)?.terminals.get(terminal)?.label ?? terminal}`;
}

/** @example jumperText(breadboard, jumper) // '8 i → 28 g' */
export const jumperText = (breadboard: Breadboard, { from, to }: Pick<Jumper, 'from' | 'to'>): string =>
  `${holeText(breadboard, from)} → ${holeText(breadboard, to)}`;

/** @example leadText(plan, sheets, lead) // 'lead from GP5 to 28 g' */
export function leadText(plan: Plan, sheets: Sheets, { end, to }: Lead): string {
  const target = to.at === 'hole' ? holeText(orThrow(plan.breadboard, 'breadboard'), to.hole) : leadEndText(plan, sheets, to.end);
  return `lead from ${leadEndText(plan, sheets, end)} to ${target}`;
}

/** @example legsText(breadboard, legs) // ['cathode in 12 d and anode in 15 d'], of legs that are alike ['legs in 12 d and 15 d'] */
function legsText(board: Breadboard, legs: StepHoles['legs']): readonly string[] {
  if (legs.length === 0) return [];
  const isNamed = legs.some(({ name }) => name !== undefined);
  const each = legs.map(({ name = 'outer leg', hole }) => (isNamed ? `${name} in ${holeText(board, hole)}` : holeText(board, hole)));
  return [isNamed ? listText(each) : `legs in ${listText(each)}`];
}

/** Where a step is done on the breadboard. @returns empty where it is not on it
 *  @example stepHolesText(plan, sheets, holes) // 'jumper 8 i → 28 g' */
export function stepHolesText(plan: Plan, sheets: Sheets, holes: StepHoles | undefined): string {
  if (!holes || !plan.breadboard) return '';
  const board = plan.breadboard;
  const { jumpers, leads, legs } = holes;
  return [
    ...(jumpers.length > 0
      ? [`${jumpers.length > 1 ? 'jumpers' : 'jumper'} ${listText(jumpers.map((one) => jumperText(board, one)))}`]
      : []),
    ...leads.map((lead) => leadText(plan, sheets, lead)),
    ...legsText(board, legs),
  ].join(' · ');
}

/** Which leg of an item goes where: the first and the last one of each row of legs.
 *  @example plugText(plan, sheets, item) // 'rows 26 to 29: GND in 26 j, SDA in 29 j' */
export function plugText(plan: Plan, sheets: Sheets, { id, legs, overTwo }: PlacedItem): string {
  const board = orThrow(plan.breadboard, 'breadboard');
  // Of what lies over two boards, the rows of the first: those of the second have the same numbers.
  const rows = legs.filter(({ hole }) => !overTwo || hole.half === 'fj').map(({ hole }) => hole.row);
  const [first, last] = [Math.min(...rows), Math.max(...rows)];
  const label = (leg: string) =>
    id === 'board' ? (boardOf(plan, sheets)?.pins.get(leg)?.label ?? leg) : (partOf(plan, id, sheets)?.terminals.get(leg)?.label ?? leg);
  const corners = (['ae', 'fj'] as const).flatMap((half) => {
    const own = legs.filter(({ hole }) => hole.half === half).toSorted((a, b) => a.hole.row - b.hole.row);
    return own.length > 1 ? [firstOrThrow(own), lastOrThrow(own)] : own;
  });
  const span = first === last ? `row ${rowText(board, first)}` : `rows ${rowText(board, first)} to ${rowText(board, last)}`;
  return `${span}: ${listText(corners.map(({ id: leg, hole }) => `${label(leg)} in ${holeText(board, hole)}`))}`;
}

/** What a wire that feeds a rail is for.
 *  @example railWireHead(plan, sheets, wire) // 'GND', or of a link between two pieces 'Rail link' */
export function railWireHead(plan: Plan, sheets: Sheets, wire: Jumper | Lead): string {
  if ('end' in wire) return leadEndText(plan, sheets, wire.end);
  return 'link' in wire.for || !('item' in wire.for)
    ? 'Rail link'
    : leadEndText(plan, sheets, { module: wire.for.item, terminal: wire.for.leg ?? '' });
}

/** The placement in one line: what is used, and how long the wires are.
 *  @example holeSummary(plan, sheets) // '63 rows, split rails · 18 jumpers · 214 rows of wire (54 cm)' */
export function holeSummary(plan: Plan, sheets: Sheets): string {
  const holes = holePlan(plan, sheets);
  if (!holes) return '';
  return [breadboardText(holes.breadboard), counted(holes.jumpers.length, 'jumper'), wireLengthText(holes.length)].join(' · ');
}

/** What a net of a hole plan is called. @example holeNetName(plan, sheets, 'pin:GP5') // 'GP5' */
export function holeNetName(plan: Plan, sheets: Sheets, net: string): string {
  const conductor = holePlan(plan, sheets)?.conductors.get(net);
  return conductor ? conductorName(plan, sheets, conductor) : net;
}

/** A net with its holes' jumpers: what it is called, and from where to where its wires go.
 *  @example holeNetText(plan, sheets, 'pin:GP5') // 'GP5: 8 i → 28 g, 28 f → 35 f' */
export function holeNetText(plan: Plan, sheets: Sheets, net: string): string {
  const holes = holePlan(plan, sheets);
  if (!holes?.conductors.has(net)) return net;
  const own = holes.jumpers.filter((jumper) => jumper.net === net);
  const leads = holes.leads.filter((lead) => lead.net === net);
  const wires = [...own.map((jumper) => jumperText(holes.breadboard, jumper)), ...leads.map((lead) => leadText(plan, sheets, lead))];
  return `${holeNetName(plan, sheets, net)}${wires.length > 0 ? `: ${wires.join(', ')}` : ''}`;
}

/** Whether a placement is the best there is, or how much better another could be. */
export function proofText({ span, bound, proved }: Pick<HolePlacement, 'span' | 'bound' | 'proved'>): string {
  return proved
    ? `Proved: packed from the board on with two free rows between parts, no other order or half brings the nets closer together (${counted(span, 'row')} in all).`
    : `The nets reach over ${counted(span, 'row')} in all; at least ${bound} are needed. A better placement may exist.`;
}

/** Why nothing was placed.
 *  @param locked what is locked where it has no room
 *  @example noRoomText(plan, sheets, ['display-1']) // 'No room for OLED there: …' */
export const noRoomText = (plan: Plan, sheets: Sheets, locked: readonly string[]): string =>
  locked.length === 0
    ? 'Nothing can be placed on this breadboard.'
    : `No room for ${listText(locked.map((item) => itemText(plan, sheets, item)))} there: the board or another locked part is in the way, or the breadboard ends.`;
