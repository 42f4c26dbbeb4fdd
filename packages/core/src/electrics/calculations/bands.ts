import { bandsOf, letterCode } from '../../quantity/bands';
import { type Calculation, share } from './calculation';

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
