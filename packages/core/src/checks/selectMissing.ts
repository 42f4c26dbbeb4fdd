import { partSheet } from '../sheets/sheetIndex';
import type { Check } from './check';
import { toBusOfItsOwn } from './ownBus';
import { spiGroups } from './spiGroups';

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
        const groups = spiGroups(context, bus);
        return groups
          .filter((group) => !group.select && groups.length > 1)
          .map((group) => ({
            level: 'clash' as const,
            message: 'missing',
            place: { placements: [group.head], ...(bus.controller ? { bus: bus.controller } : {}) },
            data: {
              placement: { is: 'placement', id: group.head } as const,
              others: { is: 'placements', ids: groups.filter((g) => g !== group).map((g) => g.head) } as const,
            },
            source: partSheet(context.sheets, context.plan.placements.find((p) => p.id === group.head)!.sheet)!.sheet.bus.source,
            remedies: toBusOfItsOwn(context, group.head, 'spi'),
          }));
      }),
};
