import { findOrThrow } from '../../collections/orThrow';
import { type SpiRow, spiReport } from '../../electrics/reports/spiReport';
import { partSheetOrThrow } from '../../sheets/sheetIndex';
import type { Check, CheckContext, FindingDraft } from '../engine/check';
import { moveToFree } from '../fixes/remedyParts';
import { toBusOfItsOwn } from '../fixes/ownBus';

/** A further chip of a module that is wired but for its select, which its sheet does not ask for as long as the chip is not used. */
function unselected(context: CheckContext, { head, further, select }: SpiRow): readonly FindingDraft[] {
  if (!further || !select || select.wire || select.terminal.need === 'needed') return [];
  return [
    {
      level: 'clash',
      message: 'chip',
      place: { placements: [head], terminals: [select.key] },
      data: {
        placement: { is: 'placement', id: head },
        chip: { is: 'words', text: further.chip },
        terminal: { is: 'terminal', key: select.key },
      },
      source: select.part.bus.source,
      remedies: () => moveToFree(context, select).map((remedy) => ({ ...remedy, label: 'select' })),
    },
  ];
}

export const selectMissing: Check = {
  code: 'select-missing',
  question: 'Does every device on a shared SPI bus have a chip select?',
  messages: {
    missing: {
      title: '{placement}: no chip select',
      text: 'It interprets data for {others} as its own.',
      why: 'A device without CS responds to every clock on the bus. It works only on dedicated lines.',
    },
    chip: {
      title: '{placement}: no chip select for its {chip}',
      text: '{terminal} is not connected; the {chip} may answer while another device is selected.',
      why: 'With CS open the chip may be selected at any time. Drive CS from a pin and keep it high unless the chip is used.',
    },
  },
  remedies: { select: 'Connect {terminal} to {pin}', 'own-bus': 'Move {placement} to {controller} ({pins})' },
  examine: (context) =>
    context.buses
      .filter((bus) => bus.kind === 'spi')
      .flatMap((bus) => {
        const all = spiReport(context.plan, context.sheets, context.board, bus).rows;
        const rows = all.filter((row) => !row.further);
        const missing = rows
          .filter((row) => !row.select && rows.length > 1)
          .map((row) => ({
            level: 'clash' as const,
            message: 'missing',
            place: { placements: [row.head], ...(bus.controller ? { bus: bus.controller } : {}) },
            data: {
              placement: { is: 'placement', id: row.head } as const,
              others: { is: 'placements', ids: rows.filter((other) => other !== row).map((other) => other.head) } as const,
            },
            source: partSheetOrThrow(context.sheets, findOrThrow(context.plan.placements, (p) => p.id === row.head).sheet).sheet.bus.source,
            remedies: () => toBusOfItsOwn(context, row.head, 'spi'),
          }));
        return [...missing, ...all.flatMap((row) => unselected(context, row))];
      }),
};
