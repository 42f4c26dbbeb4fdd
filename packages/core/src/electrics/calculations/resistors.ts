import { formatSi } from '../../quantity/format';
import { nearestOf, valuesOf } from '../../quantity/series';
import { divide, sensorDivider } from '../dividers';
import { ladder } from '../ladder';
import { ledResistor, multiplexed, ratingFor } from '../led';
import { baseResistor } from '../transistor';
import { above, type Calculation, finite, SERIES_INPUT, seriesOf, share, TOLERANCE_INPUT, whole } from './calculation';

export const led: Calculation = {
  id: 'led',
  words: 'Series resistor of an LED, and the current at the corners.',
  inputs: [
    { name: 'supply', words: 'supply', unit: 'V', default: '3.3' },
    { name: 'supply-tolerance', words: 'how far the supply may be off, as a share', unit: '1', default: '0.05' },
    { name: 'vf', words: 'forward voltage', unit: 'V', default: '2' },
    { name: 'vf-min', words: 'forward voltage at the least; as vf where it is 0', unit: 'V', default: '0' },
    { name: 'vf-max', words: 'forward voltage at the most; as vf where it is 0', unit: 'V', default: '0' },
    { name: 'current', words: 'current it should light with', unit: 'A', default: '5m' },
    { name: 'drive', words: 'resistance of the pin or switch', unit: 'Ω', default: '0' },
    { name: 'drop', words: 'voltage that a transistor keeps for itself', unit: 'V', default: '0' },
    TOLERANCE_INPUT,
    SERIES_INPUT,
  ],
  outputs: [
    { name: 'exactOhms', unit: 'Ω', words: 'resistance exactly' },
    { name: 'ohms', unit: 'Ω', words: 'next preferred value up' },
    { name: 'ampsMin', unit: 'A', words: 'current at the darkest corner' },
    { name: 'ampsMax', unit: 'A', words: 'current at the brightest corner' },
    { name: 'watts', unit: 'W', words: 'power in the resistor at worst' },
    { name: 'ratingWatts', unit: 'W', words: 'rating to take, with twice the room' },
    { name: 'verdict', unit: 'text', words: 'good, too-low (supply below forward voltage), no-value or none-needed' },
  ],
  source: 'Ohm’s law',
  run(values) {
    const supply = values.number('supply');
    const spread = share(values, 'supply-tolerance');
    const vf = values.number('vf');
    const { working, ...found } = ledResistor({
      supply: { min: supply * (1 - spread), typ: supply, max: supply * (1 + spread) },
      forwardVolts: { min: values.number('vf-min') || vf, typ: vf, max: values.number('vf-max') || vf },
      amps: values.number('current'),
      driveOhms: values.number('drive'),
      dropVolts: values.number('drop'),
      tolerance: share(values, 'tolerance'),
      values: valuesOf(seriesOf(values), 1, 10e6),
    });
    return {
      outputs: {
        exactOhms: finite(found.exactOhms),
        ohms: finite(found.ohms),
        ampsMin: finite(found.amps?.min),
        ampsMax: finite(found.amps?.max),
        watts: finite(found.watts),
        ratingWatts: finite(found.ratingWatts),
        verdict: found.verdict,
      },
      working,
    };
  },
};

export const digits: Calculation = {
  id: 'multiplex',
  words: 'Digits lit one after another: refresh, duty, peak and digit current.',
  inputs: [
    { name: 'digits', words: 'digits', unit: '1', default: '4' },
    { name: 'dwell', words: 'how long each is lit', unit: 's', default: '3m' },
    { name: 'average', words: 'average current of a segment', unit: 'A', default: '2m' },
    { name: 'segments', words: 'segments of a digit, the point among them', unit: '1', default: '8' },
  ],
  outputs: [
    { name: 'refreshHz', unit: 'Hz', words: 'rounds a second' },
    { name: 'duty', unit: '1', words: 'share of the time that a digit is lit' },
    { name: 'peakAmps', unit: 'A', words: 'current of a segment while it is lit' },
    { name: 'digitAmps', unit: 'A', words: 'current of a digit with all segments lit' },
    { name: 'verdict', unit: 'text', words: 'steady, or flickers below 70 rounds a second' },
  ],
  source: 'Each digit is lit once a round',
  run(values) {
    const { working, flickers, ...outputs } = multiplexed({
      digits: whole(values, 'digits'),
      dwell: above(values, 'dwell'),
      averageAmps: above(values, 'average'),
      segments: whole(values, 'segments'),
    });
    return { outputs: { ...outputs, verdict: flickers ? 'flickers' : 'steady' }, working };
  },
};

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
  source: 'Every pair of the series tried at every corner',
  run(values) {
    const { best, pairs, working } = divide({
      input: { min: values.number('in-min'), max: values.number('in-max') },
      output: { min: values.number('out-min'), max: values.number('out-max') },
      farads: values.number('capacitance'),
      tolerance: share(values, 'tolerance'),
      values: valuesOf(seriesOf(values), 100, 1e6),
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
      working,
    };
  },
};

export const keypad: Calculation = {
  id: 'ladder',
  words: 'Resistors of keys on one analog pin, chosen so that the closest two are as far apart as can be.',
  inputs: [
    { name: 'keys', words: 'keys', unit: '1' },
    { name: 'bits', words: 'bits of the analog input', unit: '1', default: '10' },
    { name: 'least', words: 'smallest resistor to use', unit: 'Ω', default: '100' },
    { name: 'most', words: 'largest resistor to use', unit: 'Ω', default: '100k' },
    TOLERANCE_INPUT,
    SERIES_INPUT,
  ],
  outputs: [
    { name: 'pull', unit: 'Ω', words: 'from the pin to the supply' },
    { name: 'row', unit: 'text', words: 'from ground outwards, a key at each joint, the first at ground' },
    { name: 'gap', unit: '1', words: 'smallest distance at the worst corners, as a share of the supply' },
    { name: 'gapCounts', unit: '1', words: 'the same in counts of the analog input' },
    { name: 'thresholds', unit: 'text', words: 'counts between the keys; above the last no key is down' },
    { name: 'verdict', unit: 'text', words: 'good, thin (below 8 counts) or overlap' },
    { name: 'proved', unit: 'text', words: 'whether no values do better' },
  ],
  source: 'Dividers at every corner of the tolerance; branch and bound over the values',
  run(values) {
    const bits = whole(values, 'bits');
    if (bits < 4 || bits > 24) throw new RangeError(`bits ${bits}: expected 4 to 24`);
    const counts = 2 ** bits - 1;
    const keys = whole(values, 'keys');
    const { best, proved } = ladder(
      {
        keys,
        values: valuesOf(seriesOf(values), above(values, 'least'), above(values, 'most')),
        tolerance: share(values, 'tolerance'),
      },
      keys > 6 ? { nodes: 50_000 } : {},
    );
    if (!best)
      return {
        outputs: {
          pull: null,
          row: 'none',
          gap: null,
          gapCounts: null,
          thresholds: 'none',
          verdict: 'overlap',
          proved: proved ? 'yes' : 'no',
        },
        working: [],
      };
    const inCounts = best.gap * counts;
    return {
      outputs: {
        pull: best.pull,
        row: best.row.map((ohms) => formatSi(ohms, 'Ω')).join(', ') || 'none',
        gap: best.gap,
        gapCounts: Math.floor(inCounts),
        thresholds: best.thresholds.map((threshold) => Math.round(threshold * counts)).join(', '),
        verdict: inCounts < THIN_COUNTS ? 'thin' : 'good',
        proved: proved ? 'yes' : 'no',
      },
      working: best.levels.map((level, at) => ({
        formula: `key ${at + 1}: R / (R + Rpull)`,
        values: `${Math.round(level.min * counts)} to ${Math.round(level.max * counts)} counts`,
        source: 'Both resistances at their corners',
      })),
    };
  },
};

/** Fewer counts than this between two keys, and noise of an analog input of a microcontroller mixes them up. */
const THIN_COUNTS = 8;

export const sensor: Calculation = {
  id: 'sensor-divider',
  words: 'Fixed resistor beside a thermistor or photoresistor, for the widest span.',
  inputs: [
    { name: 'from', words: 'resistance at one end of the range', unit: 'Ω' },
    { name: 'to', words: 'resistance at the other end', unit: 'Ω' },
    SERIES_INPUT,
  ],
  outputs: [
    { name: 'exactOhms', unit: 'Ω', words: 'resistance exactly' },
    { name: 'ohms', unit: 'Ω', words: 'nearest preferred value' },
    { name: 'span', unit: '1', words: 'span as a share of the supply' },
  ],
  source: 'The span of a divider is widest at the geometric mean',
  run(values) {
    const [from, to] = [values.number('from'), values.number('to')];
    const { ohms, span } = sensorDivider(from, to);
    return {
      outputs: { exactOhms: ohms, ohms: nearestOf(valuesOf(seriesOf(values), 1, 100e6), ohms) ?? null, span },
      working: [
        {
          formula: 'R = √(R1 · R2)',
          values: `√(${formatSi(from, 'Ω')} · ${formatSi(to, 'Ω')}) = ${formatSi(ohms, 'Ω')}`,
          source: 'The span of a divider is widest at the geometric mean',
        },
      ],
    };
  },
};

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
  source: 'Base current = load current / forced gain',
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
        source: 'Base current = load current / forced gain',
      },
    ];
    if (!(exact > 0)) return { outputs: { exactOhms: null, ohms: null, baseAmps: null, verdict: 'level-too-low' }, working };
    const ohms = valuesOf(seriesOf(values), 1, 100e6).findLast((value) => value <= exact * (1 + 1e-9)) ?? null;
    const amps = ohms === null ? null : (high - vbe) / ohms;
    return { outputs: { exactOhms: exact, ohms, baseAmps: amps, verdict: amps !== null && amps > pin ? 'pin-too-weak' : 'good' }, working };
  },
};

export const power: Calculation = {
  id: 'power',
  words: 'Power in a resistor, and the rating to take.',
  inputs: [
    { name: 'ohms', words: 'resistance', unit: 'Ω' },
    { name: 'current', words: 'current through it', unit: 'A' },
  ],
  outputs: [
    { name: 'watts', unit: 'W', words: 'power' },
    { name: 'ratingWatts', unit: 'W', words: 'rating with twice the room; none where no usual one has it' },
  ],
  source: 'P = I² · R',
  run(values) {
    const [ohms, amps] = [above(values, 'ohms'), above(values, 'current')];
    const watts = amps ** 2 * ohms;
    return {
      outputs: { watts, ratingWatts: ratingFor(watts) ?? null },
      working: [
        {
          formula: 'P = I² · R',
          values: `${formatSi(amps, 'A')}² · ${formatSi(ohms, 'Ω')} = ${formatSi(watts, 'W')}`,
          source: 'Ohm’s law',
        },
      ],
    };
  },
};
