import { formatSi } from '../../quantity/format';
import { point } from '../../quantity/range';
import { bestAdded } from '../formulas/bestAdded';
import { busPullUps, lowVolts } from '../formulas/busPullUps';
import { I2C_STANDARD, i2cModeAt, sinkAmps } from '../formulas/i2cModes';
import { type Calculation, cornersFrom, finite, SERIES_INPUT, share, TOLERANCE_INPUT, valuesIn, verdictOutput } from './calculation';
import { PREFERRED_VALUES } from '../formulas/documents';

export const pullUp: Calculation = {
  id: 'pull-up',
  words: 'I2C pull-up: allowed range, effective value and what to add.',
  inputs: [
    { name: 'vdd', words: 'bus supply VDD', unit: 'V', default: '3.3' },
    { name: 'hz', words: 'clock', unit: 'Hz', default: '400k' },
    { name: 'capacitance', words: 'bus capacitance Cb', unit: 'F', default: '100p' },
    { name: 'pull-ups', words: 'existing pull-ups, separated by commas', unit: 'Ω', list: true, default: '' },
    TOLERANCE_INPUT,
    { name: 'vol', words: 'VOL of the weakest device (0: 0.4 V, or 0.2 VDD up to 2 V, by UM10204)', unit: 'V', default: '0' },
    { name: 'iol', words: 'its IOL (0: by UM10204 for supply and mode)', unit: 'A', default: '0' },
    SERIES_INPUT,
  ],
  outputs: [
    { name: 'leastOhms', unit: 'Ω', words: 'minimum (IOL of the weakest device)' },
    { name: 'mostOhms', unit: 'Ω', words: 'maximum (rise time)' },
    { name: 'ohmsMin', unit: 'Ω', words: 'effective pull-up, minimum' },
    { name: 'ohmsMax', unit: 'Ω', words: 'effective pull-up, maximum' },
    { name: 'riseSeconds', unit: 's', words: 'rise time, maximum' },
    verdictOutput({
      good: 'within its limits',
      missing: 'no pull-up',
      'too-strong': 'sink current above IOL',
      'too-weak': 'rise time above the limit',
      both: 'sink current above IOL, and rise time above the limit',
      'over-capacitance': 'more capacitance than the mode allows',
    }),
    { name: 'add', unit: 'Ω', words: 'preferred value to add; none if not needed or not possible' },
  ],
  source: I2C_STANDARD,
  run(values) {
    const tolerance = share(values, 'tolerance');
    const [vdd, hz] = [values.number('vdd'), values.number('hz')];
    const mode = i2cModeAt(hz);
    if (!mode) throw new RangeError(`hz ${hz}: expected up to 1 MHz; faster modes need a current source instead of resistors`);
    const sink = { id: 'weakest', volts: values.number('vol') || lowVolts(vdd), amps: values.number('iol') || sinkAmps(mode, vdd) };
    const given = { vdd: point(vdd), sinks: [sink], farads: values.number('capacitance'), hz };
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
    const range = add === undefined ? undefined : busPullUps({ ...given, pullUps: [...there, resistor(add)] }).ohms;
    return {
      ...cornersFrom(
        'Ω',
        [
          ...(result.ohms ? [{ label: 'effective pull-up', range: result.ohms }] : []),
          ...(add !== undefined && range ? [{ label: `with ${formatSi(add, 'Ω')} added`, range }] : []),
        ],
        { from: result.leastOhms, to: result.mostOhms },
      ),
      outputs: {
        leastOhms: result.leastOhms,
        mostOhms: result.mostOhms,
        ohmsMin: finite(result.ohms?.min),
        ohmsMax: finite(result.ohms?.max),
        riseSeconds: finite(result.riseSeconds?.max),
        verdict: result.verdict === 'good' && result.allFarads > result.mostFarads ? 'over-capacitance' : result.verdict,
        add: add ?? null,
      },
      working:
        add === undefined
          ? result.working
          : [
              ...result.working,
              { formula: 'add: nearest preferred value to the middle of the window', values: formatSi(add, 'Ω'), source: PREFERRED_VALUES },
            ],
    };
  },
};
