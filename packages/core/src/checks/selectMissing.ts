import { spiSheet } from '../electrics/spiBus';
import { partSheet } from '../sheets/sheetIndex';
import type { Check } from './check';
import { toBusOfItsOwn } from './ownBus';

export const selectMissing: Check = {
  code: 'select-missing',
  question: 'Has every part that shares an SPI bus a select?',
  messages: {
    missing: {
      title: '{placement} has no select',
      text: 'It takes what is sent to {others} for its own.',
      why: 'A part without a select listens to every clock on the bus. It works alone on its lines only.',
    },
  },
  remedies: { 'own-bus': 'Put {placement} on {controller} ({pins})' },
  examine: (context) =>
    context.buses
      .filter((bus) => bus.kind === 'spi')
      .flatMap((bus) => {
        const rows = spiSheet(context.plan, context.sheets, context.board, bus).rows.filter((row) => !row.further);
        return rows
          .filter((row) => !row.select && rows.length > 1)
          .map((row) => ({
            level: 'clash' as const,
            message: 'missing',
            place: { placements: [row.head], ...(bus.controller ? { bus: bus.controller } : {}) },
            data: {
              placement: { is: 'placement', id: row.head } as const,
              others: { is: 'placements', ids: rows.filter((other) => other !== row).map((other) => other.head) } as const,
            },
            source: partSheet(context.sheets, context.plan.placements.find((p) => p.id === row.head)!.sheet)!.sheet.bus.source,
            remedies: () => toBusOfItsOwn(context, row.head, 'spi'),
          }));
      }),
};
