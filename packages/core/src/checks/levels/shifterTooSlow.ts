import { firstOrThrow } from '../../collections/orThrow';
import { spiReport } from '../../electrics/reports/spiReport';
import type { Check, CheckContext, FindingDraft } from '../engine/check';
import { type ShifterLines, shifterLines } from './shifterLines';
import { typicalHz, requiredHz, repacked } from '../fixes/levelTranslation';

/** Below this fraction of the part's maximum clock, a limit by a shifter is reported. */
const HOLDS = 4;

const most = ({ part }: ShifterLines): number => part.bus.maxWriteHz ?? part.bus.maxReadHz ?? Infinity;

/** @param asks the data rate that the lines need, in hertz */
function draft(context: CheckContext, lines: ShifterLines, message: 'cannot' | 'holds', asks: number): FindingDraft {
  const { placement, part, items } = lines;
  const keys = items.map((item) => item.key);
  return {
    level: message === 'cannot' ? 'clash' : 'hint',
    message,
    place: { placements: [placement.id, firstOrThrow(items).placement.id], view: 'levels' },
    data: {
      shifter: { is: 'placement', id: placement.id },
      part: { is: 'placement', id: firstOrThrow(items).placement.id },
      carries: { is: 'quantity', value: most(lines), unit: 'Hz' },
      asks: { is: 'quantity', value: asks, unit: 'Hz' },
    },
    source: part.bus.source,
    remedies: () => {
      const found = repacked(context, placement.id, keys);
      return found ? [{ label: 'other', data: { modules: found.modules }, grade: 'offered', edits: found.edits }] : [];
    },
  };
}

/** Whether a shifter is what holds the clock of a part down. */
function holdsClock(context: CheckContext, id: string): boolean {
  const { plan, sheets, board, buses } = context;
  return buses.some(
    (bus) =>
      bus.kind === 'spi' && spiReport(plan, sheets, board, bus).rows.some((row) => row.chain.includes(id) && row.write.by === 'shifter'),
  );
}

export const shifterTooSlow: Check = {
  code: 'shifter-too-slow',
  question: 'Is every level shifter fast enough for its signals?',
  messages: {
    cannot: {
      title: '{shifter} is too slow for {part}: {carries}, required {asks}',
      text: 'The part has a fixed data rate.',
      why: 'A MOSFET shifter pulls a line high through its resistor: tr = 2.2 · R · C. Above this rate the line does not reach its high level between edges.',
    },
    holds: {
      title: '{shifter} limits {part} to {carries}',
      text: 'The part supports {asks}.',
      why: 'The slowest component in the path sets the maximum clock. A logic buffer passes display data and clock at full rate.',
    },
  },
  remedies: { other: 'Use {modules} for these lines' },
  examine: (context) =>
    shifterLines(context).flatMap((lines) => {
      const ids = [...new Set(lines.items.map((item) => item.placement.id))];
      return ids.flatMap((id): FindingDraft[] => {
        const own = lines.items.filter((item) => item.placement.id === id);
        const hard = own.filter((item) => requiredHz(item) > most(lines));
        if (hard.length > 0) return [draft(context, { ...lines, items: hard }, 'cannot', Math.max(...hard.map(requiredHz)))];
        const held = own.filter((item) => typicalHz(context, item) >= HOLDS * most(lines));
        if (held.length === 0 || !holdsClock(context, id)) return [];
        return [draft(context, { ...lines, items: held }, 'holds', Math.max(...held.map((item) => typicalHz(context, item))))];
      });
    }),
};
