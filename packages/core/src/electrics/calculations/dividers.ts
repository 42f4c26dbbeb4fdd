import { formatSi, plain } from '../../quantity/format';
import { nearestOf } from '../../quantity/series';
import { contrastDivider, divide, sensorDivider } from '../formulas/dividers';
import { above, type Calculation, finite, SERIES_INPUT, share, TOLERANCE_INPUT, valuesIn, verdictOutput, whole } from './calculation';
import { ADC_SHEET, CIRCUIT_THEORY, CONTRAST_DRIVE, INPUT_SHEET, PREFERRED_VALUES } from '../formulas/documents';

export const divider: Calculation = {
  id: 'divider',
  words: 'Voltage divider that keeps a level within a window in the worst case.',
  inputs: [
    { name: 'in-min', words: 'input high level, minimum', unit: 'V', default: '4.5' },
    { name: 'in-max', words: 'input high level, maximum', unit: 'V', default: '5.25' },
    { name: 'out-min', words: 'VIH of the receiver', unit: 'V', default: '2' },
    { name: 'out-max', words: 'absolute maximum of the receiver', unit: 'V', default: '3.6' },
    { name: 'capacitance', words: 'capacitance at the receiver', unit: 'F', default: '20p' },
    { name: 'total-min', words: 'sum of both resistors, minimum', unit: 'Ω', default: '1k' },
    { name: 'total-max', words: 'sum of both resistors, maximum', unit: 'Ω', default: '100k' },
    TOLERANCE_INPUT,
    { ...SERIES_INPUT, default: 'E24' },
  ],
  outputs: [
    { name: 'top', unit: 'Ω', words: 'R1, from the input to the receiver' },
    { name: 'bottom', unit: 'Ω', words: 'R2, from the receiver to ground' },
    { name: 'outMin', unit: 'V', words: 'output, minimum' },
    { name: 'outMax', unit: 'V', words: 'output, maximum' },
    { name: 'theveninOhms', unit: 'Ω', words: 'source resistance (R1 ∥ R2)' },
    { name: 'mostBitsPerSecond', unit: '1', words: 'maximum bit rate, bit/s' },
    { name: 'standingAmps', unit: 'A', words: 'current while the input is high' },
    { name: 'pairs', unit: '1', words: 'suitable pairs of values; 0 if the window is too narrow' },
  ],
  source: `${INPUT_SHEET}; ${PREFERRED_VALUES}`,
  run(values) {
    const { best, pairs, working } = divide({
      input: { min: values.number('in-min'), max: values.number('in-max') },
      output: { min: values.number('out-min'), max: values.number('out-max') },
      farads: values.number('capacitance'),
      tolerance: share(values, 'tolerance'),
      values: valuesIn(values, 100, 1e6),
      total: { min: above(values, 'total-min'), max: above(values, 'total-max') },
    });
    return {
      outputs: {
        top: finite(best?.top),
        bottom: finite(best?.bottom),
        outMin: finite(best?.output.min),
        outMax: finite(best?.output.max),
        theveninOhms: finite(best?.theveninOhms),
        mostBitsPerSecond: finite(best?.mostBitsPerSecond),
        standingAmps: finite(best?.standingAmps),
        pairs,
      },
      ...(best
        ? {
            spans: {
              unit: 'V',
              from: 0,
              to: values.number('in-max'),
              rows: [
                { label: 'input', range: { min: values.number('in-min'), max: values.number('in-max') } },
                { label: 'output', range: best.output },
              ],
              windows: [{ from: values.number('out-min'), to: values.number('out-max'), good: true }],
            },
          }
        : {}),
      working,
    };
  },
};

export const sensor: Calculation = {
  id: 'sensor-divider',
  words: 'Fixed resistor for a thermistor or photoresistor divider with the widest span.',
  inputs: [
    { name: 'from', words: 'sensor resistance at one end of the range', unit: 'Ω' },
    { name: 'to', words: 'sensor resistance at the other end', unit: 'Ω' },
    { name: 'units', words: 'units between both ends, such as degrees', unit: '1', default: '1' },
    { name: 'bits', words: 'ADC resolution, bits', unit: '1', default: '10' },
    { name: 'source-most', words: 'maximum source resistance of the ADC', unit: 'Ω', default: '10k' },
    SERIES_INPUT,
  ],
  outputs: [
    { name: 'exactOhms', unit: 'Ω', words: 'exact resistance' },
    { name: 'ohms', unit: 'Ω', words: 'nearest preferred value' },
    { name: 'span', unit: '1', words: 'span, as a fraction of the supply' },
    { name: 'countsPerUnit', unit: '1', words: 'ADC counts per unit, average' },
    { name: 'sourceOhms', unit: 'Ω', words: 'source resistance, maximum' },
    verdictOutput({
      good: 'at least one count per unit',
      coarse: 'less than one count per unit',
      'source-over': 'source resistance above the limit; add a buffer, or a capacitor at the input',
    }),
  ],
  source: ADC_SHEET,
  run(values) {
    const [from, to] = [values.number('from'), values.number('to')];
    const { ohms } = sensorDivider(from, to);
    const bits = whole(values, 'bits');
    if (bits < 4 || bits > 24) throw new RangeError(`bits ${bits}: expected 4 to 24`);
    const fixed = nearestOf(valuesIn(values, 1, 100e6), ohms) ?? ohms;
    const share = (sensor: number) => fixed / (fixed + sensor);
    const span = Math.abs(share(from) - share(to));
    const countsPerUnit = (span * (2 ** bits - 1)) / above(values, 'units');
    const sourceOhms = Math.max(...[from, to].map((sensor) => (fixed * sensor) / (fixed + sensor)));
    const verdict = sourceOhms > above(values, 'source-most') ? 'source-over' : countsPerUnit < 1 ? 'coarse' : 'good';
    return {
      outputs: { exactOhms: ohms, ohms: fixed, span, countsPerUnit, sourceOhms, verdict },
      working: [
        {
          formula: 'Rsource = R · Rsensor / (R + Rsensor)',
          values: `at most ${formatSi(fixed, 'Ω')} · ${formatSi(Math.max(from, to), 'Ω')} / (${formatSi(fixed, 'Ω')} + ${formatSi(Math.max(from, to), 'Ω')}) = ${formatSi(sourceOhms, 'Ω')}`,
          source: ADC_SHEET,
        },
        {
          formula: 'R = √(R1 · R2): widest span; nearest preferred value',
          values: `√(${formatSi(from, 'Ω')} · ${formatSi(to, 'Ω')}) = ${formatSi(ohms, 'Ω')} → ${formatSi(fixed, 'Ω')}`,
          source: CIRCUIT_THEORY,
        },
        {
          formula: 'span = |R / (R + R1) − R / (R + R2)|; counts = span · (2^bits − 1) / units',
          values: `with ${formatSi(fixed, 'Ω')}: ${plain(span)}; · ${2 ** bits - 1} / ${above(values, 'units')} = ${plain(countsPerUnit)}`,
          source: ADC_SHEET,
        },
      ],
    };
  },
};

export const contrast: Calculation = {
  id: 'contrast',
  words: 'Contrast voltage of a character LCD: trimmer position or two fixed resistors.',
  inputs: [
    { name: 'supply', words: 'display supply', unit: 'V', default: '5' },
    { name: 'glass', words: 'LCD drive voltage VLCD', unit: 'V', default: '4.4' },
    { name: 'trimmer', words: 'trimmer resistance', unit: 'Ω', default: '10k' },
    SERIES_INPUT,
  ],
  outputs: [
    { name: 'volts', unit: 'V', words: 'voltage at VO' },
    { name: 'turn', unit: '1', words: 'wiper position from ground, as a fraction' },
    { name: 'top', unit: 'Ω', words: 'fixed resistor from the supply to VO' },
    { name: 'bottom', unit: 'Ω', words: 'fixed resistor from VO to ground' },
    { name: 'given', unit: 'V', words: 'voltage with the fixed resistors' },
    verdictOutput({
      good: 'the fixed resistors give the voltage',
      'at-ground': 'tie VO to ground',
      'needs-negative': 'use another LCD or a higher supply',
    }),
  ],
  source: CONTRAST_DRIVE,
  run(values) {
    const { working, ...found } = contrastDivider({
      volts: values.number('supply'),
      glassVolts: values.number('glass'),
      trimmerOhms: values.number('trimmer'),
      values: valuesIn(values, 10, 1e6),
    });
    return {
      outputs: {
        volts: found.volts,
        turn: finite(found.turn),
        top: finite(found.top),
        bottom: finite(found.bottom),
        given: finite(found.given),
        verdict: found.verdict,
      },
      working,
    };
  },
};
