import fc from 'fast-check';
import { shippedSheets } from '../../../tests/catalogue';
import { add, edited } from '../../../tests/makePlan';
import { runs } from '../../../tests/runs';
import { applyEdits } from '../../plan/applyEdits';
import { newPlan, type WireEnd } from '../../plan/plan';
import { planFindingsOf } from '../../review/review';
import type { IndexedBoard } from '../../sheets/sheetIndex';
import { endFit, fitReason } from './endFit';

const sheets = shippedSheets();
const boards = [...sheets.boards.values()];
const parts = [...sheets.parts.values()];

/** What says that a single wire is wrong: how strong a line is, or what it lacks, is not about where it goes. */
const ABOUT_THE_END = ['pin-cannot', 'pin-reserved', 'supply-wrong'];

const endsOf = ({ sheet }: IndexedBoard): readonly WireEnd[] => [
  { to: 'ground' },
  ...sheet.rails.list.map((rail): WireEnd => ({ to: 'rail', rail: rail.id })),
  ...sheet.pins.list.map((pin): WireEnd => ({ to: 'pin', pin: pin.id })),
];

const wires = fc
  .tuple(fc.constantFrom(...boards), fc.constantFrom(...parts))
  .chain(([board, part]) =>
    fc.tuple(fc.constant(board), fc.constant(part), fc.constantFrom(...part.sheet.terminals.list), fc.constantFrom(...endsOf(board))),
  );

test('what the Chart says of an end is what the checks find once the wire is there', () => {
  fc.assert(
    fc.property(wires, (wire) => {
      const [board, part, terminal, end] = wire;
      // An end of a channel or a port has its wire at the other part: no rule of the board.
      if (terminal.role === 'external') return;
      const fit = endFit(board, part.sheet, terminal, end);
      const empty = edited(newPlan('p', 'P', { id: board.sheet.id, version: board.sheet.version }), sheets, add('x', part.sheet.id));
      const made = applyEdits(empty, [{ kind: 'wire', placement: 'x', terminal: terminal.id, end }], sheets);
      const words = fitReason(fit, terminal, end.to === 'pin' ? board.pins.get(end.pin) : undefined);
      expect(words === '').toBe(fit.verdict === 'can');
      expect(words).not.toMatch(/undefined|null/);
      const found = made.ok
        ? planFindingsOf(made.plan, sheets).filter((f) => ABOUT_THE_END.includes(f.code) && f.place.terminals?.includes(`x:${terminal.id}`))
        : undefined;
      if (fit.verdict === 'cannot') expect(found?.length ?? 1).toBeGreaterThan(0);
      else expect(found?.filter((f) => f.level === 'clash')).toEqual([]);
    }),
    { numRuns: runs(3000) },
  );
});
