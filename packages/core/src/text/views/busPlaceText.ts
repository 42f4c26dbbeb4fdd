import { describeFinding } from '../describe';
import { listText } from '../names';
import type { Bus } from '../../nets/buses';
import type { Plan } from '../../plan/plan';
import { counted, formatSi } from '../../quantity/format';
import type { BusPlace, BusSpeed } from '../../review/busPlaces';
import type { IndexedBoard, Sheets } from '../../sheets/sheetIndex';
import { softwareHz } from '../../sheets/softwareBuses';
import { clockUnit } from '../softwareSpeed';
import { nameOf } from '../memberName';

/** @example busLabel(board, bus) // 'I2C0', or 'SPI, no controller' */
export const busLabel = (board: IndexedBoard, { controller, kind }: Bus): string =>
  (controller === undefined ? undefined : board.controllers.get(controller)?.title) ?? `${kind.toUpperCase()}, no controller`;

/** Frames per second beyond which the eye sees no difference. */
const SEEN = 100;

const LINE_ORDER = ['sda', 'scl', 'sck', 'mosi', 'miso', 'tx', 'rx'];

/** Where a place is: "I2C1 on GP2 (SDA) and GP3 (SCL)", with the parts that are there already. */
export function placeHead(plan: Plan, board: IndexedBoard, { title, pins, joins, usual }: BusPlace): string {
  const at = Object.entries(pins)
    .toSorted(([a], [b]) => LINE_ORDER.indexOf(a) - LINE_ORDER.indexOf(b))
    .map(([line, pin]) => `${board.pins.get(pin)?.label ?? pin} (${line.toUpperCase()})`);
  const beside = joins.length > 0 ? `, with ${listText(joins.map((id) => nameOf(plan, id)))}` : '';
  return `${title} on ${listText(at)}${beside}${usual ? ', usual pins' : ''}`;
}

/** A bus where it is, to compare a place with. */
interface BusNow {
  readonly kind: Bus['kind'];
  readonly now: BusSpeed;
}

/** What a place costs: wires that move, the clock and frame rate where they change, and what comes and goes. */
export function placeCostText(plan: Plan, sheets: Sheets, { kind, now }: BusNow, place: BusPlace): string {
  const { moved, speed, added, gone, software } = place;
  const unit = clockUnit(kind);
  const clock = (hz: number | undefined) => (hz === undefined ? 'no clock' : formatSi(hz, unit));
  const frames = (perSecond: number) => String(perSecond >= 10 ? Math.round(perSecond) : Number(perSecond.toPrecision(2)));
  const words = [
    moved === 0 ? 'no wire moves' : `${counted(moved, 'wire')} ${moved === 1 ? 'moves' : 'move'}`,
    speed.hz === now.hz ? clock(speed.hz) : `${clock(now.hz)} → ${clock(speed.hz)}`,
    // A frame rate far above what the eye sees is no cost.
    ...(speed.framesPerSecond !== undefined && speed.framesPerSecond !== now.framesPerSecond && speed.framesPerSecond < SEEN
      ? [
          now.framesPerSecond === undefined
            ? `${frames(speed.framesPerSecond)} frames/s`
            : `${frames(now.framesPerSecond)} → ${frames(speed.framesPerSecond)} frames/s`,
        ]
      : []),
    ...(software ? ['takes the program’s time'] : []),
    ...(gone.length > 0 ? [`removes ${counted(gone.length, 'finding')}`] : []),
    ...added.map((finding) => `new ${finding.level === 'clash' ? 'error' : 'warning'}: ${describeFinding(plan, sheets, finding).title}`),
  ];
  return words.join(' · ');
}

/** Why a bus can be put nowhere else. */
export function nowhereText(board: IndexedBoard, { kind, controller }: Bus, blocked: number): string {
  const name = kind.toUpperCase();
  const hasHardware = board.sheet.controllers.list.some((one) => one.kind === kind && !one.software);
  const why =
    blocked > 0
      ? `other signals or locked wires take ${counted(blocked, 'place')}.`
      : `this board has no ${hasHardware ? 'other pins for' : 'controller for'} ${name}.`;
  if (controller !== undefined && board.controllers.get(controller)?.software) return `No other place: ${why}`;
  const software =
    softwareHz(board, kind) === undefined ? `Software ${name} is not usual on its chip` : `Software ${name} finds no free pins`;
  return `No other place: ${why} ${software}.`;
}
