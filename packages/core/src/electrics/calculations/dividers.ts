import { formatSi, plain } from '../../quantity/format';
import { nearestOf } from '../../quantity/series';
import { contrastDivider, divide, sensorDivider } from '../dividers';
import { above, type Calculation, finite, SERIES_INPUT, share, TOLERANCE_INPUT, valuesIn, whole } from './calculation';
import { ADC_SHEET, CIRCUIT_THEORY, CONTRAST_DRIVE, INPUT_SHEET, PREFERRED_VALUES } from '../documents';

export const divider: Calculation = {
  id: 'divider',
  words: 'Two resistors that bring a level down into a window at every corner.',
  inputs: [
    { name: 'in-min', words: 'high level that comes in, at the least', unit: 'V', default: '4.5' },
    { name: 'in-max', words: 'high level that comes in, at the most', unit: 'V', default: '5.25' },
    { name: 'out-min', words: 'what the receiver takes for high', unit: 'V', default: '2' },
    { name: 'out-max', words: 'what the receiver stands', unit: 'V', default: '3.6' },
    { name: 'capacitance', words: 'capacitance at the receiver', unit: 'F', default: '20p' },
    { name: 'total-min', words: 'least of both together', unit: 'Ω', default: '1k' },
    { name: 'total-max', words: 'most of both together', unit: 'Ω', default: '100k' },
    TOLERANCE_INPUT,
    { ...SERIES_INPUT, default: 'E24' },
  ],
  outputs: [
    { name: 'top', unit: 'Ω', words: 'from the input to the receiver' },
    { name: 'bottom', unit: 'Ω', words: 'from the receiver to ground' },
    { name: 'outMin', unit: 'V', words: 'what comes out at the least' },
    { name: 'outMax', unit: 'V', words: 'what comes out at the most' },
    { name: 'theveninOhms', unit: 'Ω', words: 'what the receiver sees' },
    { name: 'mostBitsPerSecond', unit: '1', words: 'fastest bits' },
    { name: 'standingAmps', unit: 'A', words: 'current while the input is high' },
    { name: 'pairs', unit: '1', words: 'pairs of the series that do; none where the window is too narrow' },
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
                { label: 'comes in', range: { min: values.number('in-min'), max: values.number('in-max') } },
                { label: 'comes out', range: best.output },
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
  words: 'Fixed resistor beside a thermistor or photoresistor, for the widest span.',
  inputs: [
    { name: 'from', words: 'resistance at one end of the range', unit: 'Ω' },
    { name: 'to', words: 'resistance at the other end', unit: 'Ω' },
    { name: 'units', words: 'how many units lie between, degrees for instance', unit: '1', default: '1' },
    { name: 'bits', words: 'bits of the analog input', unit: '1', default: '10' },
    { name: 'source-most', words: 'most resistance that the analog input takes before it', unit: 'Ω', default: '10k' },
    SERIES_INPUT,
  ],
  outputs: [
    { name: 'exactOhms', unit: 'Ω', words: 'resistance exactly' },
    { name: 'ohms', unit: 'Ω', words: 'nearest preferred value' },
    { name: 'span', unit: '1', words: 'span with it, as a share of the supply' },
    { name: 'countsPerUnit', unit: '1', words: 'counts of the analog input for a unit, in the mean' },
    { name: 'sourceOhms', unit: 'Ω', words: 'what the analog input sees at the most' },
    {
      name: 'verdict',
      unit: 'text',
      words: 'good, coarse (less than a count for a unit) or source-over (a buffer or a capacitor at the input helps)',
    },
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
  words: 'Contrast of a character display: where the trimmer stands, or two fixed resistors.',
  inputs: [
    { name: 'supply', words: 'supply of the display', unit: 'V', default: '5' },
    { name: 'glass', words: 'what the glass wants between supply and contrast terminal', unit: 'V', default: '4.4' },
    { name: 'trimmer', words: 'resistance of the trimmer', unit: 'Ω', default: '10k' },
    SERIES_INPUT,
  ],
  outputs: [
    { name: 'volts', unit: 'V', words: 'at the contrast terminal, against ground' },
    { name: 'turn', unit: '1', words: 'how far up from ground the trimmer stands, as a share' },
    { name: 'top', unit: 'Ω', words: 'fixed instead: from the supply to the terminal' },
    { name: 'bottom', unit: 'Ω', words: 'fixed instead: from the terminal to ground' },
    { name: 'given', unit: 'V', words: 'what the two give' },
    {
      name: 'verdict',
      unit: 'text',
      words: 'good, at-ground (tie it to ground) or needs-negative (below ground: another glass, or a higher supply)',
    },
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
