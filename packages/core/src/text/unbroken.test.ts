import { unbroken } from './unbroken';

test.each([
  ['limit 500 mA', ['500 mA']],
  ['-0.5 V to 3.6 V (1 000 Ω)', ['-0.5 V', '3.6 V', '1 000 Ω)']],
  ['8 board positions', ['8 board']],
  ['GP22 is used by 2 signals', ['2 signals']],
  ['0x68 on I2C0', []],
  ['ends with 5', []],
  ['', []],
])('%s', (text, whole) => {
  const pieces = unbroken(text);
  expect(pieces.filter((piece) => piece.whole).map((piece) => piece.text)).toEqual(whole);
  expect(pieces.map((piece) => piece.text).join('')).toBe(text);
});
