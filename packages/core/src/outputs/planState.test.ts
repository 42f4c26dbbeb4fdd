import { shippedSheets } from '../../tests/catalogue';
import { corpusPlans } from '../../tests/corpus';
import { add, edited, stick, wire, wired } from '../../tests/makePlan';
import { findingsOf } from '../review/review';
import { planState } from './planState';

const sheets = shippedSheets();
const LED = 'led-red-5mm';

test('wires and those that are done where they are now; a wire that has moved since is not', () => {
  const plan = edited(
    stick(),
    sheets,
    ...wired('l', LED, { A: 'GP2', K: 'ground' }),
    { kind: 'series', placement: 'l', terminal: 'A', ohms: 330 },
    {
      kind: 'tick',
      placement: 'l',
      terminal: 'A',
      end: { to: 'pin', pin: 'GP2' },
    },
  );
  expect(planState(plan, sheets)).toEqual({ wires: 2, ticked: 1, errors: 0, warnings: 0 });
  expect(planState(edited(plan, sheets, wire('l:A', 'GP3')), sheets)).toMatchObject({ wires: 2, ticked: 0 });
});

test('open errors and warnings; an accepted one is left out, and nothing is said of a plan without its sheet', () => {
  const clash = edited(
    stick(),
    sheets,
    ...wired('l', LED, { A: 'GP2' }),
    ...wired('m', LED, { A: 'GP2' }),
    ...wired('k', LED, { A: 'GP3' }),
    {
      kind: 'series',
      placement: 'k',
      terminal: 'A',
      ohms: 10,
    },
  );
  const { errors, warnings } = planState(clash, sheets)!;
  expect(errors).toBeGreaterThan(0);
  const accepted = edited(clash, sheets, {
    kind: 'accept',
    finding: findingsOf(clash, sheets).find(({ level }) => level === 'risk')!.id,
    reason: 'tried',
  });
  expect(planState(accepted, sheets)).toMatchObject({ errors, warnings: warnings - 1 });
  expect(planState(edited(stick(), sheets, add('l', LED)), sheets)).toMatchObject({ wires: 0, ticked: 0 });
  expect(planState({ ...stick(), board: { id: 'gone', version: 1 } }, sheets)).toBeUndefined();
  // What is soldered to the board needs no wire.
  expect(planState(corpusPlans().get('ferry-dial')!, sheets)!.wires).toBeLessThan(
    Object.keys(corpusPlans().get('ferry-dial')!.wires).length,
  );
});
