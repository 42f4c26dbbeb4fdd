import { readValue, today, valueText } from './factFields';

test('a value is read as the kind that the sheet has, or not at all', () => {
  expect(readValue(5.1, ' 4.7 ')).toBe(4.7);
  expect(readValue(0x3c, '0x3D')).toBe(61);
  expect([readValue(1, 'a few'), readValue(1, ''), readValue('x', ' ')]).toEqual([null, null, null]);
  expect([readValue(true, 'no'), readValue(true, 'maybe')]).toEqual([false, null]);
  expect([readValue(['A', 'B'], 'SDA, DAT'), readValue([0, 3], '0,1,2'), readValue(['A'], 'SDA,,')]).toEqual([
    ['SDA', 'DAT'],
    [0, 1, 2],
    null,
  ]);
});

test('what is shown can be typed back', () => {
  for (const value of [12, 'words', true, false, ['a', 'b'], [1, 2]] as const)
    expect(readValue(value, valueText(value, 'x'))).toEqual(value);
  expect(readValue(60, valueText(60, 'bus/devices/a/addresses/0x3c/address'))).toBe(60);
  expect(today(new Date(2026, 0, 5))).toBe('2026-01-05');
});
