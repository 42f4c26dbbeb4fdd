import { ladderText, readLadder, writeLadder } from './ladderText';

test('resistors are read as people write them, and written so that they are read again', () => {
  const read = readLadder('10k; 2k2, 470 Ω');
  expect(read).toEqual({ pull: 10_000, row: [2200, 470] });
  expect(readLadder(writeLadder(read as Exclude<typeof read, string>))).toEqual(read);
  expect(readLadder('10k, , 5')).toBe('Enter resistances such as 10k, 2k2, 470');
  expect(readLadder('10k, x')).toMatch(/^x is not a resistance/);
  expect(readLadder(Array(17).fill('1k').join(','))).toMatch(/^17 resistors: at most 16 keys per pin/);
});

test('keys say their thresholds, or what is missing to have them', () => {
  const ladder = { placement: 'k', key: 'k:OUT', count: 2, leadTo: 'ground' as const, counts: 1023, values: undefined, reading: undefined };
  expect(ladderText({ ...ladder, counts: undefined })).toMatch(/^Not connected to an analog input/);
  expect(ladderText(ladder)).toMatch(/^2 keys\. Their resistors are unknown/);
  const reading = {
    keys: [],
    idle: { min: 1023, max: 1023 },
    gap: 200.4,
    between: [1, 2] as const,
    thresholds: [250.2, 800],
    verdict: 'good' as const,
  };
  expect(ladderText({ ...ladder, values: { pull: 1, row: [1] }, reading })).toBe(
    '2 keys, full scale 1023 counts; the closest two are 200 apart in the worst case. Thresholds: 250, 800.',
  );
});
