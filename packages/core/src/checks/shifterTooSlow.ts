import { spiSheet } from '../electrics/spiBus';
import type { Check, CheckContext, FindingDraft } from './check';
import { type ShifterLines, shifterLines } from './shifterLines';
import { meantToCarry, mustCarry, repacked } from './waysAcross';

/** From here on a clock that a shifter holds down is worth a word: a quarter of what the part takes. */
const HOLDS = 4;

const most = ({ part }: ShifterLines): number => part.bus.maxWriteHz ?? part.bus.maxReadHz ?? Infinity;

function draft(
  context: CheckContext,
  lines: ShifterLines,
  level: 'clash' | 'hint',
  items: ShifterLines['items'],
  asks: number,
): FindingDraft {
  const keys = items.map((item) => item.key);
  const { placement, part } = lines;
  return {
    level,
    message: level === 'clash' ? 'cannot' : 'holds',
    place: { placements: [placement.id, items[0]!.placement.id], view: 'levels' },
    data: {
      shifter: { is: 'placement', id: placement.id },
      part: { is: 'placement', id: items[0]!.placement.id },
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
      bus.kind === 'spi' && spiSheet(plan, sheets, board, bus).rows.some((row) => row.chain.includes(id) && row.write.by === 'shifter'),
  );
}

export const shifterTooSlow: Check = {
  code: 'shifter-too-slow',
  question: 'Is every level shifter fast enough for what goes through it?',
  messages: {
    cannot: {
      title: '{shifter} carries {carries}, {part} sends {asks}',
      text: 'The part knows no slower rate.',
      why: 'A shifter of MOSFETs brings a line high through its pull-up: R · C sets how fast. Above that an edge has not arrived when the next one comes.',
    },
    holds: {
      title: '{shifter} holds {part} at {carries}',
      text: 'It takes {asks}.',
      why: 'The clock of a bus is that of the slowest between its ends. A logic buffer passes data and clock of displays at their full rate.',
    },
  },
  remedies: { other: 'Take these lines through {modules}' },
  examine: (context) =>
    shifterLines(context).flatMap((lines) => {
      const ids = [...new Set(lines.items.map((item) => item.placement.id))];
      return ids.flatMap((id): FindingDraft[] => {
        const own = lines.items.filter((item) => item.placement.id === id);
        const hard = own.filter((item) => mustCarry(item) > most(lines));
        if (hard.length > 0) return [draft(context, lines, 'clash', hard, Math.max(...hard.map(mustCarry)))];
        const held = own.filter((item) => meantToCarry(context, item) >= HOLDS * most(lines));
        if (held.length === 0 || !holdsClock(context, id)) return [];
        return [draft(context, lines, 'hint', held, Math.max(...held.map((item) => meantToCarry(context, item))))];
      });
    }),
};
