import { shippedSheets } from '../../tests/catalogue';
import { add, edited, stick, wire } from '../../tests/makePlan';
import { findingsOf } from '../../tests/checkHarness';
import { additionOf } from '../review/addition';
import { applyEdits } from '../plan/applyEdits';
import { newPlan, type Plan, terminalKey } from '../plan/plan';
import { describeFix } from '../text/describe';

const sheets = shippedSheets();

/** A sensor where it is proposed on a board, its two lines the wrong way round. */
function swapped(boardId: string): { readonly right: Plan; readonly wrong: Plan } | undefined {
  const board = sheets.boards.get(boardId)!.sheet;
  const empty = newPlan('p', 'P', { id: board.id, version: board.version });
  const added = applyEdits(empty, additionOf(empty, sheets, sheets.parts.get('humidity-sht31')!.sheet)!.edits, sheets);
  if (!added.ok) return undefined;
  const right = added.plan;
  const { id } = right.placements.at(-1)!;
  const [sda, scl] = [right.wires[terminalKey(id, 'SDA')], right.wires[terminalKey(id, 'SCL')]];
  if (sda?.end.to !== 'pin' || scl?.end.to !== 'pin') return undefined;
  return { right, wrong: edited(right, sheets, wire(`${id}:SDA`, scl.end.pin), wire(`${id}:SCL`, sda.end.pin)) };
}

test.each([...sheets.boards.keys()])('%s: SDA and SCL swapped are put right in one click', (boardId) => {
  const plans = swapped(boardId);
  if (!plans) throw new Error('the sensor was not wired');
  const remedy = findingsOf(plans.wrong, sheets)
    .flatMap((finding) => finding.remedies)
    .find(({ label }) => label === 'swap');
  const board = sheets.boards.get(boardId)!.sheet;
  // Where any pin can be either line, neither way is wrong.
  const isFree = board.controllers.list.some((controller) => controller.kind === 'i2c' && controller.legal.rule === 'any-pin');
  if (!remedy) return expect(isFree).toBe(true);
  const after = applyEdits(plans.wrong, remedy.edits, sheets);
  const ends = (plan: Plan) => Object.fromEntries(Object.entries(plan.wires).map(([key, { end }]) => [key, end]));
  expect(after.ok && ends(after.plan)).toEqual(ends(plans.right));
});

test('of two parts on one bus the one that is the other way round is swapped; two alike are swapped together', () => {
  const two = (second: readonly [string, string]) =>
    edited(
      stick(),
      sheets,
      add('a', 'humidity-sht31', 'Air'),
      add('b', 'light-bh1750', 'Light'),
      wire('a:SDA', 'GP4'),
      wire('a:SCL', 'GP5'),
      wire('b:SDA', second[0]),
      wire('b:SCL', second[1]),
    );
  const one = two(['GP5', 'GP4']);
  const labels = (plan: Plan) =>
    findingsOf(plan, sheets).flatMap((finding) =>
      finding.remedies.filter((r) => r.label === 'swap').map((remedy) => describeFix(plan, sheets, finding.code, remedy)),
    );
  expect(new Set(labels(one))).toEqual(new Set(['Swap SDA and SCL of Light']));
  const both = edited(one, sheets, wire('a:SDA', 'GP5'), wire('a:SCL', 'GP4'));
  expect(new Set(labels(both))).toEqual(new Set(['Swap SDA and SCL of Air and Light']));
  const locked = edited(one, sheets, { kind: 'lock', placement: 'b', terminal: 'SDA', locked: true });
  expect(labels(locked)).toEqual([]);
});

describe('a module that shifts levels itself', () => {
  test.each(['climate-bme280', 'distance-vl53l0x', 'air-sgp30', 'light-veml7700', 'orientation-bno055', 'motion-lis3dh'])(
    '%s on the 5 V shield board: its lines may idle at 5 V',
    (part) => {
      const empty = newPlan('p', 'P', { id: 'atmega328p-5v-shield', version: 1 });
      const added = applyEdits(empty, additionOf(empty, sheets, sheets.parts.get(part)!.sheet)!.edits, sheets);
      if (!added.ok) throw new Error('not added');
      expect(findingsOf(added.plan, sheets).filter((finding) => finding.code === 'pullup-wrong-rail')).toEqual([]);
    },
  );

  test('one that does not is still found', () => {
    const empty = newPlan('p', 'P', { id: 'rp2040-stick-40', version: 1 });
    const plan = edited(
      empty,
      sheets,
      add('clock', 'clock-ds1307'),
      wire('clock:SDA', 'GP4'),
      wire('clock:SCL', 'GP5'),
      wire('clock:VCC', 'rail vbus'),
      wire('clock:GND', 'ground'),
    );
    expect(findingsOf(plan, sheets).map((finding) => finding.code)).toContain('pullup-wrong-rail');
  });
});
