import { bandsOf, letterCode } from '../../quantity/bands';
import { formatSi, significant } from '../../quantity/format';
import { ratingFor, ratingStep } from '../formulas/led';
import { above, type Calculation, share } from './calculation';
import { CIRCUIT_THEORY, RATED_DISSIPATION, RESISTOR_MARKS } from '../formulas/documents';

export const colourBands: Calculation = {
  id: 'bands',
  words: 'Colour bands and marking code of a resistor.',
  inputs: [
    { name: 'ohms', words: 'resistance', unit: 'Ω' },
    { name: 'tolerance', words: 'tolerance, as a fraction (0.2: no band)', unit: '1', default: '0.05' },
  ],
  outputs: [
    { name: 'bands', unit: 'text', words: 'colour bands, first to last' },
    { name: 'code', unit: 'text', words: 'marking code' },
  ],
  source: RESISTOR_MARKS,
  run(values) {
    const [ohms, tolerance] = [values.number('ohms'), share(values, 'tolerance')];
    const [bands, code] = [bandsOf(ohms, tolerance), letterCode(ohms, tolerance)];
    return {
      outputs: { bands: bands.join(', '), code },
      working: [
        {
          formula: 'digits · 10^multiplier ± tolerance',
          values: `${bands.join(', ')} = ${formatSi(ohms, 'Ω')} ± ${significant(tolerance * 100)} %; ${code}`,
          source: RESISTOR_MARKS,
        },
      ],
    };
  },
};

export const power: Calculation = {
  id: 'power',
  words: 'Power dissipation of a resistor and the rating to choose.',
  inputs: [
    { name: 'ohms', words: 'resistance', unit: 'Ω' },
    { name: 'current', words: 'current', unit: 'A' },
  ],
  outputs: [
    { name: 'watts', unit: 'W', words: 'power dissipation' },
    { name: 'ratingWatts', unit: 'W', words: 'power rating with a factor of 2; none if no common rating is high enough' },
  ],
  source: RATED_DISSIPATION,
  run(values) {
    const [ohms, amps] = [above(values, 'ohms'), above(values, 'current')];
    const watts = amps ** 2 * ohms;
    return {
      outputs: { watts, ratingWatts: ratingFor(watts) ?? null },
      working: [
        {
          formula: 'P = I² · R',
          values: `${formatSi(amps, 'A')}² · ${formatSi(ohms, 'Ω')} = ${formatSi(watts, 'W')}`,
          source: CIRCUIT_THEORY,
        },
        ratingStep(watts),
      ],
    };
  },
};
