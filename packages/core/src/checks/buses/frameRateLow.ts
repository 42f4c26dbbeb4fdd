import { busClock } from '../../electrics/reports/busClock';
import { busUsers } from '../../electrics/reports/busInputs';
import { busTime } from '../../electrics/formulas/i2cTime';
import { spiReport } from '../../electrics/reports/spiReport';
import type { Bus } from '../../nets/buses';
import { partOf } from '../../plan/edit';
import type { Check, CheckContext } from '../engine/check';

/** Below this a picture that is sent whole is seen to crawl. */
const CALM = 8;

interface Shown {
  readonly id: string;
  readonly perSecond: number;
}

/** How often a second each part on a bus could be served if it had the bus to itself. */
function shown({ plan, sheets, board }: CheckContext, bus: Bus): readonly Shown[] {
  if (bus.kind === 'i2c') {
    const { users } = busTime(busClock(plan, sheets, bus).hz, busUsers(plan, sheets, bus).users);
    return users.map((user) => ({ id: user.id, perSecond: user.alonePerSecond }));
  }
  const { rows } = spiReport(plan, sheets, board, bus);
  return rows.flatMap((row) => (row.time ? [{ id: row.head, perSecond: row.time.mostPerSecond }] : []));
}

export const frameRateLow: Check = {
  code: 'frame-rate-low',
  question: 'Is the frame rate of every display high enough?',
  messages: {
    slow: {
      title: '{display}: {rate} fps at most',
      text: 'A full frame takes {seconds} on {bus}.',
      why: 'Frame time = bits per frame / fclock. Sending only the changed area is faster; for animation use a higher clock or the SPI version of the display.',
    },
  },
  remedies: {},
  examine: (context) =>
    context.buses.flatMap((bus) => {
      const { controller } = bus;
      if (controller === undefined || bus.kind === 'uart') return [];
      return shown(context, bus).flatMap(({ id, perSecond }) => {
        const access = partOf(context.plan, id, context.sheets)?.sheet.access;
        if (access?.what !== 'frame' || perSecond >= CALM || access.perSecond <= 1) return [];
        return [
          {
            level: 'hint',
            message: 'slow',
            place: { placements: [id], bus: controller },
            data: {
              display: { is: 'placement', id },
              rate: { is: 'words', text: String(Number(perSecond.toPrecision(2))) },
              seconds: { is: 'quantity', value: 1 / perSecond, unit: 's' },
              bus: { is: 'controller', id: controller },
            },
            source: access.source,
            remedies: () => [],
          },
        ];
      });
    }),
};
