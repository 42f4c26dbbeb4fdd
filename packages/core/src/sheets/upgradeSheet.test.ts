import { catalogueFiles } from '../../tests/catalogue';
import { readSheet } from './readSheet';
import { todaysFact, upgradeSheet } from './upgradeSheet';

const relay = [...catalogueFiles()].find(([name]) => name.includes('relay-active-high'))![1] as {
  readonly terminals: { readonly list: readonly { readonly id: string; readonly role: string; readonly need: string }[] };
};

test('a sheet of before, whose contacts were outside of the plan, is read as one of today', () => {
  const before = {
    ...relay,
    terminals: {
      ...relay.terminals,
      list: relay.terminals.list.map((t) => (t.role === 'external' ? { ...t, role: 'outside', need: 'outside' } : t)),
    },
  };
  const copy = structuredClone(before);
  expect(readSheet(before)).toEqual(readSheet(relay));
  expect(readSheet(before)).toMatchObject({ ok: true });
  expect(before).toEqual(copy);
});

test('documents of any shape pass unchanged', () => {
  for (const document of [
    relay,
    null,
    undefined,
    7,
    'text',
    [],
    {},
    { terminals: null },
    { terminals: { list: 3 } },
    { terminals: { list: [null, 4] } },
  ])
    expect(upgradeSheet(document)).toBe(document);
});

test('a level shifter of before is read as one of today, with its facts; a wrong one is refused under today’s name', () => {
  const shifter = [...catalogueFiles()].find(([name]) => name.includes('shifter-mosfet-4'))![1] as { readonly levelShifter: object };
  const { levelShifter, ...rest } = shifter;
  expect(readSheet({ ...rest, passage: levelShifter })).toEqual(readSheet(shifter));
  expect(readSheet({ ...rest, passage: { ...levelShifter, ohms: 0 } })).toMatchObject({
    ok: false,
    faults: [{ path: 'levelShifter.ohms' }],
  });
  expect(readSheet({ ...shifter, passage: levelShifter })).toMatchObject({ ok: false, faults: [{ path: 'passage' }] });
  expect([todaysFact('passage/ohms'), todaysFact('supply/volts/max'), todaysFact('passages')]).toEqual([
    'levelShifter/ohms',
    'supply/volts/max',
    'passages',
  ]);
});
