import type { Step } from '../formulas/working';
import { formatSi, plain } from '../../quantity/format';
import { debounce } from '../formulas/debounce';
import { isThin, type Ladder, ladder } from '../formulas/ladder';
import {
  above,
  type Calculation,
  finite,
  NO_VALUE,
  SERIES_INPUT,
  share,
  TOLERANCE_INPUT,
  valuesIn,
  verdictOutput,
  whole,
} from './calculation';
import { ADC_SHEET, CIRCUIT_THEORY, INPUT_SHEET, RESISTOR_MARKS } from '../formulas/documents';

/** What a key connects to ground: the row up to it. */
const keyOhms = ({ row }: { readonly row: readonly number[] }, at: number): string =>
  formatSi(
    row.slice(0, at).reduce((a, b) => a + b, 0),
    'Ω',
  );

/** The outputs where no values tell the keys apart. */
const NO_LADDER = { pull: null, row: 'none', gap: null, gapCounts: null, thresholds: 'none', verdict: 'overlap' };

const ladderWorking = (best: Ladder, counts: number): readonly Step[] => [
  ...best.levels.map((level, at) => ({
    formula: `key ${at + 1}: R / (R + Rpull), worst case`,
    values: `${keyOhms(best, at)} / (${keyOhms(best, at)} + ${formatSi(best.pull, 'Ω')}): ${Math.round(level.min * counts)} to ${Math.round(level.max * counts)} counts`,
    source: CIRCUIT_THEORY,
  })),
  {
    formula: 'gap = smallest distance between neighbours; in counts · (2^bits − 1)',
    values: `${plain(best.gap)}; · ${counts} = ${Math.floor(best.gap * counts)}`,
    source: ADC_SHEET,
  },
];

export const keypad: Calculation = {
  id: 'ladder',
  words: 'Resistor ladder for several keys on one analog pin, with the largest minimum distance between readings.',
  inputs: [
    { name: 'keys', words: 'keys', unit: '1' },
    { name: 'bits', words: 'ADC resolution, bits', unit: '1', default: '10' },
    { name: 'least', words: 'smallest resistor', unit: 'Ω', default: '100' },
    { name: 'most', words: 'largest resistor', unit: 'Ω', default: '100k' },
    TOLERANCE_INPUT,
    SERIES_INPUT,
  ],
  outputs: [
    { name: 'pull', unit: 'Ω', words: 'pull-up, from the pin to the supply' },
    { name: 'row', unit: 'text', words: 'ladder from ground, one key per node, the first at ground' },
    { name: 'gap', unit: '1', words: 'smallest distance in the worst case, as a fraction of the supply' },
    { name: 'gapCounts', unit: '1', words: 'smallest distance in ADC counts' },
    { name: 'thresholds', unit: 'text', words: 'thresholds in counts; above the last, no key is pressed' },
    verdictOutput({
      good: 'apart in the worst case',
      thin: 'apart by less than 8 counts or 0.5 % of full scale',
      overlap: 'two keys give the same reading in the worst case',
    }),
    { name: 'proved', unit: 'text', words: 'proved optimal' },
  ],
  source: `${CIRCUIT_THEORY}; ${RESISTOR_MARKS} (tolerance)`,
  run(values, { onProgress }) {
    const bits = whole(values, 'bits');
    if (bits < 4 || bits > 24) throw new RangeError(`bits ${bits}: expected 4 to 24`);
    const counts = 2 ** bits - 1;
    const keys = whole(values, 'keys');
    const { best, proved } = ladder(
      {
        keys,
        values: valuesIn(values, above(values, 'least'), above(values, 'most')),
        tolerance: share(values, 'tolerance'),
      },
      { ...(keys > 6 ? { nodes: 50_000 } : {}), ...(onProgress ? { onProgress } : {}) },
    );
    if (!best) return { outputs: { ...NO_LADDER, proved: proved ? 'yes' : 'no' }, working: [] };
    const inCounts = best.gap * counts;
    const inWhole = (range: { readonly min: number; readonly max: number }) => ({
      min: Math.round(range.min * counts),
      max: Math.round(range.max * counts),
    });
    return {
      values: [best.pull, ...best.row],
      spans: {
        unit: 'counts',
        from: 0,
        to: counts,
        rows: best.levels.map((level, at) => ({ label: `key ${at + 1}`, range: inWhole(level) })),
        // No key reading may reach a threshold.
        windows: best.thresholds.map((threshold) => ({
          from: (threshold - best.gap / 2) * counts,
          to: (threshold + best.gap / 2) * counts,
          good: false,
        })),
      },
      outputs: {
        pull: best.pull,
        row: best.row.map((ohms) => formatSi(ohms, 'Ω')).join(', ') || 'none',
        gap: best.gap,
        gapCounts: Math.floor(inCounts),
        thresholds: best.thresholds.map((threshold) => Math.round(threshold * counts)).join(', '),
        verdict: isThin(inCounts, counts) ? 'thin' : 'good',
        proved: proved ? 'yes' : 'no',
      },
      working: ladderWorking(best, counts),
    };
  },
};

export const bounce: Calculation = {
  id: 'debounce',
  words: 'Debounce capacitor for a key.',
  inputs: [
    { name: 'supply', words: 'pull-up supply', unit: 'V', default: '3.3' },
    { name: 'pull', words: 'pull-up, from the supply to the pin', unit: 'Ω', default: '10k' },
    { name: 'in-series', words: 'series resistor, from the pin to the key', unit: 'Ω', default: '1k' },
    { name: 'bounce', words: 'bounce time', unit: 's', default: '5m' },
    { name: 'low', words: 'VIL of the pin', unit: 'V', default: '0.99' },
    { name: 'high', words: 'VIH of the pin', unit: 'V', default: '2.31' },
    TOLERANCE_INPUT,
    { name: 'capacitor-tolerance', words: 'capacitor tolerance, as a fraction', unit: '1', default: '0.2' },
    { ...SERIES_INPUT, words: 'capacitor values: a series, or your own in F, separated by commas', default: 'E6' },
  ],
  outputs: [
    { name: 'exactFarads', unit: 'F', words: 'exact minimum capacitance' },
    { name: 'farads', unit: 'F', words: 'next preferred value up after tolerance' },
    { name: 'pressSeconds', unit: 's', words: 'time until a press is read, maximum' },
    { name: 'releaseSeconds', unit: 's', words: 'time until a release is read, maximum' },
    { name: 'contactAmps', unit: 'A', words: 'contact current when closing' },
    verdictOutput({
      good: 'read without noticeable delay',
      slow: 'noticeable delay',
      'never-low': 'the input never falls below VIL',
      ...NO_VALUE,
    }),
  ],
  source: INPUT_SHEET,
  run(values) {
    const { working, ...found } = debounce({
      volts: values.number('supply'),
      pullOhms: values.number('pull'),
      seriesOhms: values.number('in-series'),
      bounceSeconds: values.number('bounce'),
      lowVolts: values.number('low'),
      highVolts: values.number('high'),
      tolerance: share(values, 'tolerance'),
      faradTolerance: share(values, 'capacitor-tolerance'),
      values: valuesIn(values, 10e-12, 1e-3),
    });
    return {
      outputs: {
        exactFarads: finite(found.exactFarads),
        farads: finite(found.farads),
        pressSeconds: finite(found.pressSeconds),
        releaseSeconds: finite(found.releaseSeconds),
        contactAmps: found.contactAmps,
        verdict: found.verdict,
      },
      working,
    };
  },
};
