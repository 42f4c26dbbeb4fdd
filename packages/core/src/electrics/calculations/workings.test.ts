import { shippedSheets } from '../../../tests/catalogue';
import { CALCULATION_CASES } from '../../../tests/calculationCases';
import { CALCULATIONS } from './calculations';
import { readValues, outputText } from './calculation';

/** A standard, a bus specification or a datasheet: something that can be looked up. */
const DOCUMENT = /datasheet|\bIEC \d|\bIEEE \d|\bIPC-\d|UM10204|AN\d{5}|S12SPIV3/i;

test('every number that a calculation gives stands in its working, with a document behind every step', () => {
  expect(Object.keys(CALCULATION_CASES).sort()).toEqual(CALCULATIONS.map((c) => c.id));
  for (const calculation of CALCULATIONS) {
    expect([calculation.id, calculation.source]).toEqual([calculation.id, expect.stringMatching(DOCUMENT)]);
    expect(calculation.source).not.toMatch(/[=·]/);
    for (const given of CALCULATION_CASES[calculation.id]!) {
      const { outputs, working } = calculation.run(readValues(calculation, given), { sheets: shippedSheets });
      const all = working.map((step) => step.values).join('\n');
      for (const { name, unit } of calculation.outputs) {
        const value = outputs[name] ?? null;
        if (typeof value !== 'number') continue;
        expect([calculation.id, given, name, all]).toEqual([calculation.id, given, name, expect.stringContaining(outputText(value, unit))]);
      }
      for (const { source } of working) expect([calculation.id, source]).toEqual([calculation.id, expect.stringMatching(DOCUMENT)]);
    }
  }
});

test('whole numbers are told exactly', () => {
  const time = CALCULATIONS.find((c) => c.id === 'spi-time')!;
  const { outputs } = time.run(readValues(time, { bytes: '19202' }), { sheets: shippedSheets });
  expect(outputText(outputs['bits']!, '1')).toBe('153616');
  expect([outputText(0.123456, '1'), outputText(null, '1'), outputText(4700, 'Ω'), outputText('good', 'text')]).toEqual([
    '0.1235',
    'none',
    '4.7 kΩ',
    'good',
  ]);
});
