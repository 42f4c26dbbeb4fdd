import { findOrThrow } from '../../collections/orThrow';
import { busClock } from '../../electrics/reports/busClock';
import { busUsers } from '../../electrics/reports/busInputs';
import { type BusTime, busTime } from '../../electrics/formulas/i2cTime';
import { spiReport } from '../../electrics/reports/spiReport';
import { type Bus, findBuses } from '../../nets/buses';
import { applyEdits } from '../../plan/applyEdits';
import type { Edit } from '../../plan/edit';
import { partSheetOrThrow } from '../../sheets/sheetIndex';
import type { Check, CheckContext, FindingDraft, Remedy } from '../engine/check';
import { toBusOfItsOwn } from '../fixes/ownBus';

/** From here on there is little left for what the plan does not count: retries, other programs, waiting. */
const BUSY = 0.8;

/** The target bus load of a fix: below 100 % if overloaded, below the warning level if busy. */
const roomFor = (share: number): number => (share > 1 ? 1 : BUSY);

/** The update rate of the busiest part reduced to what the bus allows. */
function lessOften(top: Use['users'][number], share: number): readonly Remedy[] {
  const left = roomFor(share) - (share - top.share);
  const rate = Math.floor((left / top.share) * top.perSecond * 10) / 10;
  if (!(rate >= 0.1)) return [];
  return [
    {
      label: 'less-often',
      data: { top: { is: 'placement', id: top.id }, rate: { is: 'words', text: String(rate) } },
      grade: 'offered',
      edits: [{ kind: 'rate', placement: top.id, perSecond: rate }],
    },
  ];
}

interface Use {
  readonly users: readonly Pick<BusTime['users'][number], 'id' | 'share' | 'perSecond'>[];
  readonly share: number;
}

const i2cUse = ({ plan, sheets }: CheckContext, bus: Bus): Use =>
  busTime(busClock(plan, sheets, bus).hz, busUsers(plan, sheets, bus).users);

function spiUse({ plan, sheets, board }: CheckContext, bus: Bus): Use {
  const { rows, share } = spiReport(plan, sheets, board, bus);
  return {
    share,
    users: rows.flatMap((row) =>
      row.time && row.perSecond !== undefined ? [{ id: row.head, share: row.time.share, perSecond: row.perSecond }] : [],
    ),
  };
}

/** The bus load after edits: removing a part also removes its pull-ups and may change the clock. */
function shareAfter(context: CheckContext, { id }: Bus, edits: readonly Edit[]): number {
  const after = applyEdits(context.plan, edits, context.sheets);
  const bus = after.ok ? findBuses(after.plan, context.sheets).find((one) => one.id === id) : undefined;
  if (!after.ok || !bus) return 0;
  const then = { ...context, plan: after.plan };
  return (bus.kind === 'i2c' ? i2cUse(then, bus) : spiUse(then, bus)).share;
}

function examine(context: CheckContext, bus: Bus & { readonly controller: string }): readonly FindingDraft[] {
  const { plan, sheets } = context;
  const { users, share } = bus.kind === 'i2c' ? i2cUse(context, bus) : spiUse(context, bus);
  if (share <= BUSY) return [];
  const top = users.reduce((a, b) => (b.share > a.share ? b : a));
  const part = partSheetOrThrow(sheets, findOrThrow(plan.placements, (p) => p.id === top.id).sheet).sheet;
  return [
    {
      level: share > 1 ? 'risk' : 'hint',
      message: share > 1 ? 'over' : 'busy',
      place: { pins: Object.values(bus.pins), bus: bus.controller },
      data: {
        bus: { is: 'segment', controller: bus.controller },
        share: { is: 'share', value: share },
        top: { is: 'placement', id: top.id },
        most: { is: 'share', value: top.share },
      },
      ...(part.access ? { source: part.access.source } : {}),
      remedies: () => [
        ...lessOften(top, share),
        ...(share - top.share <= roomFor(share) && bus.members.length > 1 && bus.members.some((m) => m.id === top.id)
          ? toBusOfItsOwn(context, top.id, bus.kind).filter(({ edits }) => shareAfter(context, bus, edits) <= roomFor(share))
          : []),
      ],
    },
  ];
}

const why =
  'Utilisation = Σ (bits per access / fclock) · accesses per second. I2C: START, 9 bits per byte, STOP; SPI: 8 bits per byte. Above 100 % the program reads less often than intended.';

export const busOverloaded: Check = {
  code: 'bus-overloaded',
  question: 'Does every I2C and SPI bus have enough bandwidth?',
  messages: {
    over: { title: '{bus} overloaded: {share} utilisation', text: '{top} alone accounts for {most}.', why },
    busy: { title: '{bus}: {share} utilisation', text: '{top} alone accounts for {most}; little bandwidth is left.', why },
  },
  remedies: { 'less-often': 'Read {top} {rate} times per second', 'own-bus': 'Move {placement} to {controller} ({pins})' },
  examine: (context) =>
    context.buses.flatMap((bus) => {
      const { controller } = bus;
      return bus.kind !== 'uart' && controller !== undefined ? examine(context, { ...bus, controller }) : [];
    }),
};
