import { formatSi } from '../../quantity/format';
import { point } from '../../quantity/range';
import { bestAdded } from '../bestAdded';
import { busPullUps } from '../busPullUps';
import { I2C_STANDARD } from '../i2cModes';
import { type Calculation, finite, SERIES_INPUT, share, TOLERANCE_INPUT, valuesIn } from './calculation';

export const pullUp: Calculation = {
  id: 'pull-up',
  words: 'Pull-ups of an I2C line: the legal window, what there is, what to add.',
  inputs: [
    { name: 'vdd', words: 'supply of the bus', unit: 'V', default: '3.3' },
    { name: 'hz', words: 'clock', unit: 'Hz', default: '400k' },
    { name: 'capacitance', words: 'capacitance of the line', unit: 'F', default: '100p' },
    { name: 'pull-ups', words: 'resistances that are there, with commas between', unit: 'Ω', list: true, default: '' },
    TOLERANCE_INPUT,
    { name: 'vol', words: 'low level of the weakest member', unit: 'V', default: '0.4' },
    { name: 'iol', words: 'current that it sinks then', unit: 'A', default: '3m' },
    SERIES_INPUT,
  ],
  outputs: [
    { name: 'leastOhms', unit: 'Ω', words: 'below it the weakest member cannot pull low' },
    { name: 'mostOhms', unit: 'Ω', words: 'above it the line rises too slowly' },
    { name: 'ohmsMin', unit: 'Ω', words: 'what there is, strongest corner' },
    { name: 'ohmsMax', unit: 'Ω', words: 'what there is, weakest corner' },
    { name: 'riseSeconds', unit: 's', words: 'rise at the weakest corner' },
    { name: 'verdict', unit: 'text', words: 'missing, too-strong, too-weak, both or good' },
    { name: 'add', unit: 'Ω', words: 'preferred value to add; none where nothing is needed or nothing helps' },
  ],
  source: I2C_STANDARD,
  run(values) {
    const tolerance = share(values, 'tolerance');
    const vdd = values.number('vdd');
    const given = {
      vdd: point(vdd),
      sinks: [{ id: 'weakest', volts: values.number('vol'), amps: values.number('iol') }],
      farads: values.number('capacitance'),
      hz: values.number('hz'),
    };
    const resistor = (ohms: number) => ({
      id: formatSi(ohms, 'Ω'),
      ohms: { min: ohms * (1 - tolerance), typ: ohms, max: ohms * (1 + tolerance) },
      volts: point(vdd),
    });
    const there = values.numbers('pull-ups').map(resistor);
    const result = busPullUps({ ...given, pullUps: there });
    const add = ['missing', 'too-weak'].includes(result.verdict)
      ? bestAdded(valuesIn(values, 330, 100_000), (ohms) => busPullUps({ ...given, pullUps: [...there, resistor(ohms)] }))
      : undefined;
    return {
      outputs: {
        leastOhms: result.leastOhms,
        mostOhms: result.mostOhms,
        ohmsMin: finite(result.ohms?.min),
        ohmsMax: finite(result.ohms?.max),
        riseSeconds: finite(result.riseSeconds?.max),
        verdict: result.verdict,
        add: add ?? null,
      },
      working: result.working,
    };
  },
};
