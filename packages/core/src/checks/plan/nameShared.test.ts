import { shippedSheets } from '../../../tests/catalogue';
import { expectCheck, remedied } from '../../../tests/checkHarness';
import { add, edited, stick } from '../../../tests/makePlan';

const sheets = shippedSheets();

test('name-shared: parts of one name, whatever the case; renaming goes on to the next free number', () => {
  const plan = edited(
    stick(),
    sheets,
    add('a', 'led-red-5mm', 'Lamp'),
    add('b', 'led-red-5mm', 'lamp '),
    add('c', 'led-red-5mm', 'Lamp 2'),
    add('d', 'led-red-5mm', 'Lamps'),
  );
  expectCheck('name-shared', plan, sheets, [
    { message: 'shared', level: 'risk', title: '2 parts named lamp', remedies: ['Rename one to lamp 3'] },
  ]);
  const renamed = remedied('name-shared', plan, sheets);
  expect(renamed.placements.map(({ name }) => name)).toEqual(['Lamp', 'lamp 3', 'Lamp 2', 'Lamps']);
  expectCheck('name-shared', renamed, sheets, []);
});

test('the new name of a long one is no longer than a name may be', () => {
  const long = 'Lamp '.repeat(16).trim();
  const plan = edited(stick(), sheets, add('a', 'led-red-5mm', long), add('b', 'led-red-5mm', long));
  const renamed = remedied('name-shared', plan, sheets).placements.map(({ name }) => name);
  expect([renamed[0], renamed[1]!.endsWith(' 2'), renamed[1]!.length <= 80]).toEqual([long, true, true]);
});
