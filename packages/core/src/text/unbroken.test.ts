import { unbroken } from './unbroken';

test.each([
  ['limit 500 mA', 'limit 500\u00a0mA'],
  ['-0.5 V to 3.6 V (1 000 Ω)', '-0.5\u00a0V to 3.6\u00a0V (1\u00a0000\u00a0Ω)'],
  ['8 board positions', '8\u00a0board positions'],
  ['GP22 is used by 2 signals', 'GP22 is used by 2\u00a0signals'],
  ['0x68 on I2C0', '0x68 on I2C0'],
  ['ends with 5', 'ends with 5'],
])('%s', (text, shown) => expect(unbroken(text)).toBe(shown));
