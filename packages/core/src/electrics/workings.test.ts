import { shippedSheets } from '../../tests/catalogue';
import { CALCULATIONS } from './calculations';
import { readValues, sayOutput } from './calculations/calculation';

/** What the inputs without a default are here, and a second case of every calculation that is not the default one. */
const CASES: { readonly [id: string]: readonly Readonly<Record<string, string>>[] } = {
  bands: [{ ohms: '4k7' }, { ohms: '0.1', tolerance: '0.01' }],
  'bus-time': [{ write: '3' }, { write: '2', read: '6', transfers: '3', rate: '50', hz: '100k' }],
  contrast: [{}, { supply: '3.3', glass: '3' }],
  'current-set': [{ sheet: 'driver-max7219-dip24' }, { sheet: 'driver-max7219-dip24', current: '13m', vf: '3.1', series: 'E96' }],
  damping: [{}, { impedance: '120', rate: '30M' }],
  debounce: [{}, { pull: '4k7', bounce: '1m' }, { 'in-series': '8k' }],
  divider: [{}, { 'total-max': '3k', series: 'E12' }],
  'i2c-series': [{}, { vdd: '5', 'pull-up': '2k2' }],
  ladder: [{ keys: '5' }, { keys: '3', series: '100, 1k, 10k' }],
  led: [{}, { supply: '12', vf: '3.2', 'vf-min': '2.8', 'vf-max': '3.6', current: '20m', drop: '0.3', drive: '25' }],
  'line-pull-up': [{}, { down: '100k' }],
  multiplex: [{}, { digits: '8', dwell: '2m', common: 'anode' }],
  'one-wire-pull-up': [{}, { metres: '20' }],
  power: [
    { ohms: '4k7', current: '10m' },
    { ohms: '0.1', current: '3' },
  ],
  'pull-up': [{}, { 'pull-ups': '10k, 4k7', hz: '100k' }],
  'sensor-divider': [
    { from: '1k', to: '100k' },
    { from: '32k', to: '3.6k', units: '40', bits: '12' },
  ],
  'spi-time': [{}, { bytes: '19202', hz: '40M', rate: '20' }],
  'transistor-base': [{ load: '150m' }, { load: '20m', beta: '20' }],
  'transistor-gate': [{ load: '1' }, { load: '3', rds: '20m', 'most-watts': '1' }],
};

/** A standard, a bus specification or a datasheet: something that can be looked up. */
const DOCUMENT = /datasheet|\bIEC \d|\bIEEE \d|\bIPC-\d|UM10204|AN\d{5}|S12SPIV3/i;

test('every number that a calculation gives stands in its working, with a document behind every step', () => {
  expect(Object.keys(CASES).sort()).toEqual(CALCULATIONS.map((c) => c.id));
  for (const calculation of CALCULATIONS) {
    expect([calculation.id, calculation.source]).toEqual([calculation.id, expect.stringMatching(DOCUMENT)]);
    expect(calculation.source).not.toMatch(/[=·]/);
    for (const given of CASES[calculation.id]!) {
      const { outputs, working } = calculation.run(readValues(calculation, given), { sheets: shippedSheets });
      const all = working.map((step) => step.values).join('\n');
      for (const { name, unit } of calculation.outputs) {
        const value = outputs[name] ?? null;
        if (typeof value !== 'number') continue;
        expect([calculation.id, given, name, all]).toEqual([calculation.id, given, name, expect.stringContaining(sayOutput(value, unit))]);
      }
      for (const { source } of working) expect([calculation.id, source]).toEqual([calculation.id, expect.stringMatching(DOCUMENT)]);
    }
  }
});

test('whole numbers are told exactly', () => {
  const time = CALCULATIONS.find((c) => c.id === 'spi-time')!;
  const { outputs } = time.run(readValues(time, { bytes: '19202' }), { sheets: shippedSheets });
  expect(sayOutput(outputs['bits']!, '1')).toBe('153616');
  expect([sayOutput(0.123456, '1'), sayOutput(null, '1'), sayOutput(4700, 'Ω'), sayOutput('good', 'text')]).toEqual([
    '0.1235',
    'none',
    '4.7 kΩ',
    'good',
  ]);
});
