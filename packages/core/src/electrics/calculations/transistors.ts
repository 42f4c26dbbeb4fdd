import { formatSi } from '../../quantity/format';
import { baseResistor, gateDrive } from '../formulas/transistor';
import { above, type Calculation, finite, SERIES_INPUT, valuesIn, verdictOutput } from './calculation';
import { FORCED_GAIN, MOSFET_SHEET, OUTPUT_SHEET, PREFERRED_VALUES } from '../formulas/documents';

export const base: Calculation = {
  id: 'transistor-base',
  words: 'Base resistor of a transistor switch.',
  inputs: [
    { name: 'load', words: 'load current', unit: 'A' },
    { name: 'beta', words: 'forced gain IC/IB: 10 to 20 for saturation', unit: '1', default: '10' },
    { name: 'high', words: 'VOH of the pin', unit: 'V', default: '3.3' },
    { name: 'vbe', words: 'VBE(sat)', unit: 'V', default: '0.7' },
    { name: 'pin', words: 'maximum pin current', unit: 'A', default: '8m' },
    SERIES_INPUT,
  ],
  outputs: [
    { name: 'exactOhms', unit: 'Ω', words: 'exact resistance' },
    { name: 'ohms', unit: 'Ω', words: 'next preferred value down' },
    { name: 'baseAmps', unit: 'A', words: 'base current' },
    verdictOutput({
      good: 'saturated',
      'pin-too-weak': 'base current above that of the pin',
      'level-too-low': 'output level below VBE',
    }),
  ],
  source: FORCED_GAIN,
  run(values) {
    const [load, beta, high, vbe, pin] = [
      above(values, 'load'),
      above(values, 'beta'),
      values.number('high'),
      values.number('vbe'),
      above(values, 'pin'),
    ];
    const exact = baseResistor({ high, vbe, gain: beta, amps: load });
    const working = [
      {
        formula: 'R = (VOH − VBE) · β / I',
        values: `(${formatSi(high, 'V')} − ${formatSi(vbe, 'V')}) · ${beta} / ${formatSi(load, 'A')} = ${formatSi(exact, 'Ω')}`,
        source: FORCED_GAIN,
      },
    ];
    if (!(exact > 0)) return { outputs: { exactOhms: null, ohms: null, baseAmps: null, verdict: 'level-too-low' }, working };
    const ohms = valuesIn(values, 1, 100e6).findLast((value) => value <= exact * (1 + 1e-9)) ?? null;
    const amps = ohms === null ? null : (high - vbe) / ohms;
    return {
      outputs: { exactOhms: exact, ohms, baseAmps: amps, verdict: amps !== null && amps > pin ? 'pin-too-weak' : 'good' },
      working: [
        ...working,
        ...(ohms === null || amps === null
          ? []
          : [
              {
                formula: 'R: next preferred value down',
                values: `${formatSi(exact, 'Ω')} → ${formatSi(ohms, 'Ω')}`,
                source: PREFERRED_VALUES,
              },
              {
                formula: 'IB = (VOH − VBE) / R ≤ Ipin',
                values: `(${formatSi(high, 'V')} − ${formatSi(vbe, 'V')}) / ${formatSi(ohms, 'Ω')} = ${formatSi(amps, 'A')}; limit ${formatSi(pin, 'A')}`,
                source: OUTPUT_SHEET,
              },
            ]),
      ],
    };
  },
};

export const gate: Calculation = {
  id: 'transistor-gate',
  words: 'MOSFET switch driven by a pin: gate voltage, gate resistor and pull-down.',
  inputs: [
    { name: 'load', words: 'load current', unit: 'A' },
    { name: 'high', words: 'VOH of the pin', unit: 'V', default: '3.3' },
    { name: 'threshold', words: 'gate threshold VGS(th), maximum', unit: 'V', default: '2' },
    { name: 'rated', words: 'VGS at which RDS(on) is specified', unit: 'V', default: '2.5' },
    { name: 'rds', words: 'RDS(on)', unit: 'Ω', default: '50m' },
    {
      name: 'most-watts',
      words: 'power limit of the package: about 0.4 W for SOT-23, 1 W for TO-220 without heat sink',
      unit: 'W',
      default: '0.4',
    },
    { name: 'charge', words: 'gate charge', unit: 'C', default: '10n' },
    { name: 'pin', words: 'maximum pin current', unit: 'A', default: '8m' },
    SERIES_INPUT,
  ],
  outputs: [
    { name: 'ohms', unit: 'Ω', words: 'gate resistor: next preferred value up' },
    { name: 'downOhms', unit: 'Ω', words: 'pull-down from gate to source' },
    { name: 'switchSeconds', unit: 's', words: 'switching time, approximate' },
    { name: 'dropVolts', unit: 'V', words: 'drain-source drop' },
    { name: 'watts', unit: 'W', words: 'power dissipation while on' },
    verdictOutput({
      good: 'fully on, and within its limits',
      weak: 'VGS below the specified value',
      off: 'VGS below the threshold',
      hot: 'dissipation above the package limit',
    }),
  ],
  source: MOSFET_SHEET,
  run(values) {
    const { working, verdict, ...found } = gateDrive({
      amps: values.number('load'),
      highVolts: values.number('high'),
      thresholdVolts: values.number('threshold'),
      ratedVolts: values.number('rated'),
      onOhms: values.number('rds'),
      coulombs: values.number('charge'),
      pinAmps: values.number('pin'),
      mostWatts: values.number('most-watts'),
      values: valuesIn(values, 1, 100e6),
    });
    return {
      outputs: {
        ohms: finite(found.gateOhms),
        downOhms: finite(found.downOhms),
        switchSeconds: finite(found.switchSeconds),
        dropVolts: found.dropVolts,
        watts: found.watts,
        verdict,
      },
      working,
    };
  },
};
