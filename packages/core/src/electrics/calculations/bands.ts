import { bandsOf, letterCode } from '../../quantity/bands';
import { formatSi } from '../../quantity/format';
import { ratingFor } from '../led';
import { above, type Calculation, share } from './calculation';

export const colourBands: Calculation = {
  id: 'bands',
  words: 'Colour bands and letter code of a resistor.',
  inputs: [
    { name: 'ohms', words: 'resistance', unit: 'Ω' },
    { name: 'tolerance', words: 'tolerance, as a share: 0.2 for none', unit: '1', default: '0.05' },
  ],
  outputs: [
    { name: 'bands', unit: 'text', words: 'bands from the end where they begin' },
    { name: 'code', unit: 'text', words: 'letter code' },
  ],
  source: 'IEC 60062',
  run(values) {
    const [ohms, tolerance] = [values.number('ohms'), share(values, 'tolerance')];
    return { outputs: { bands: bandsOf(ohms, tolerance).join(', '), code: letterCode(ohms, tolerance) }, working: [] };
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
