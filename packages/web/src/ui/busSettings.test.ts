import { changed, commit, readOhms } from './busSettings';

test('resistances as people write them, once each and in rising order; the first that is none is named', () => {
  expect(readOhms('4k7 330, 330; 10k\n1M')).toEqual({ values: [330, 4700, 10_000, 1_000_000] });
  expect(readOhms('330 brown 10k')).toEqual({ values: [], bad: 'brown' });
  expect(readOhms('330 -5')).toEqual({ values: [], bad: '-5' });
  expect(readOhms('0')).toEqual({ values: [], bad: '0' });
  expect(readOhms('  ')).toEqual({ values: [] });
});

test('a setting changed keeps the others; the last one taken away leaves none', () => {
  expect(changed({ hz: 1e5, wireCm: 20 }, { hz: undefined })).toEqual({ wireCm: 20 });
  expect(changed(undefined, { addedOhms: 4700 })).toEqual({ addedOhms: 4700 });
  expect(changed({ hz: 1e5 }, { hz: undefined })).toBeNull();
});

test('what was typed is taken over only where it differs; an empty field takes the setting away; letters change nothing', () => {
  const taken: (number | undefined)[] = [];
  const type = (text: string, before: number | undefined) => commit(text, before, (value) => taken.push(value));
  type('12', 12);
  type('13', 12);
  type('', 12);
  type('', undefined);
  type('x', 12);
  expect(taken).toEqual([13, undefined]);
});
