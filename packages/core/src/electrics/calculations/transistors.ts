import { formatSi } from '../../quantity/format';
import { baseResistor, gateDrive } from '../transistor';
import { above, type Calculation, finite, SERIES_INPUT, valuesIn } from './calculation';
import { FORCED_GAIN, MOSFET_SHEET, OUTPUT_SHEET, PREFERRED_VALUES } from '../documents';

export const base: Calculation = {
  id: 'transistor-base',
  words: 'Base resistor of a transistor that switches a load.',
  inputs: [
    { name: 'load', words: 'current of the load', unit: 'A' },
    { name: 'beta', words: 'forced gain: 10 to 20 switch it on for certain', unit: '1', default: '10' },
    { name: 'high', words: 'high level of the pin', unit: 'V', default: '3.3' },
    { name: 'vbe', words: 'base to emitter voltage', unit: 'V', default: '0.7' },
    { name: 'pin', words: 'most that the pin gives', unit: 'A', default: '8m' },
    SERIES_INPUT,
  ],
  outputs: [
    { name: 'exactOhms', unit: 'Ω', words: 'resistance exactly' },
    { name: 'ohms', unit: 'Ω', words: 'next preferred value down, so that the base gets enough' },
    { name: 'baseAmps', unit: 'A', words: 'base current with it' },
    { name: 'verdict', unit: 'text', words: 'good, pin-too-weak or level-too-low' },
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
  words: 'Gate of a field-effect transistor at a pin: whether the level opens it, and its two resistors.',
  inputs: [
    { name: 'load', words: 'current of the load', unit: 'A' },
    { name: 'high', words: 'high level of the pin', unit: 'V', default: '3.3' },
    { name: 'threshold', words: 'gate voltage at which it begins to conduct, at the most', unit: 'V', default: '2' },
    { name: 'rated', words: 'gate voltage at which its sheet gives the resistance', unit: 'V', default: '2.5' },
    { name: 'rds', words: 'that resistance', unit: 'Ω', default: '50m' },
    {
      name: 'most-watts',
      words: 'heat that the package gets rid of: about 0.4 W for SOT-23, 1 W for a TO-220 without heat sink',
      unit: 'W',
      default: '0.4',
    },
    { name: 'charge', words: 'charge of the gate', unit: 'C', default: '10n' },
    { name: 'pin', words: 'most that the pin gives', unit: 'A', default: '8m' },
    SERIES_INPUT,
  ],
  outputs: [
    { name: 'ohms', unit: 'Ω', words: 'from the pin to the gate: next preferred value up' },
    { name: 'downOhms', unit: 'Ω', words: 'from the gate to the source, so that it is off while the board starts' },
    { name: 'switchSeconds', unit: 's', words: 'about how long it takes to switch' },
    { name: 'dropVolts', unit: 'V', words: 'what it keeps of the supply' },
    { name: 'watts', unit: 'W', words: 'heat while it is on' },
    {
      name: 'verdict',
      unit: 'text',
      words: 'good, weak (opens, but not as its sheet says), off, or hot (more heat than the package gets rid of)',
    },
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
