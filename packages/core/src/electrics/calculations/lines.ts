import { damping, i2cSeries, linePull } from '../linePull';
import {
  above,
  type CalcInput,
  type Calculation,
  finite,
  SERIES_INPUT,
  share,
  TOLERANCE_INPUT,
  valuesIn,
  type Values,
} from './calculation';
import { INPUT_SHEET, OUTPUT_SHEET, SERIES_PROTECTION, SOURCE_TERMINATION } from '../documents';

const LINE_OUTPUTS: Calculation['outputs'] = [
  { name: 'leastOhms', unit: 'Ω', words: 'below it the line cannot be pulled low' },
  { name: 'mostOhms', unit: 'Ω', words: 'above it the line does not get high, or too slowly, all limits together' },
  { name: 'limit', unit: 'text', words: 'what sets the upper end: leakage, rise or pull-down' },
  { name: 'ohms', unit: 'Ω', words: 'preferred value nearest to the middle of the window' },
  { name: 'restVolts', unit: 'V', words: 'where the line rests with it, at the least' },
  { name: 'riseSeconds', unit: 's', words: 'until high with it, at the slowest' },
  { name: 'lowAmps', unit: 'A', words: 'current while the line is low' },
];

/** Inputs that every pulled-up line has. */
const LINE_INPUTS: readonly CalcInput[] = [
  { name: 'vdd', words: 'supply of the line', unit: 'V', default: '3.3' },
  { name: 'vih', words: 'high level of the input at the least', unit: 'V', default: '2.31' },
  { name: 'leak', words: 'leakage of all inputs together', unit: 'A', default: '10u' },
  { name: 'vol', words: 'low level', unit: 'V', default: '0.4' },
  { name: 'iol', words: 'what pulls the line low takes so much then', unit: 'A', default: '4m' },
];

function pulled(values: Values, farads: number) {
  const { working, ...found } = linePull({
    volts: values.number('vdd'),
    highVolts: values.number('vih'),
    leakAmps: values.number('leak'),
    downOhms: values.number('down'),
    lowVolts: values.number('vol'),
    lowAmps: values.number('iol'),
    farads,
    riseSeconds: values.number('rise'),
    tolerance: share(values, 'tolerance'),
    values: valuesIn(values, 100, 1e6),
  });
  return {
    outputs: {
      leastOhms: found.leastOhms,
      mostOhms: found.mostOhms,
      limit: found.limit,
      ohms: finite(found.ohms),
      restVolts: finite(found.restVolts),
      riseSeconds: finite(found.riseSeconds),
      lowAmps: finite(found.lowAmps),
    },
    working,
  };
}

export const select: Calculation = {
  id: 'line-pull-up',
  words: 'Pull-up of a select or reset line.',
  inputs: [
    ...LINE_INPUTS,
    { name: 'down', words: 'a resistor to ground that is there already; 0 for none', unit: 'Ω', default: '0' },
    { name: 'capacitance', words: 'capacitance of the line', unit: 'F', default: '50p' },
    { name: 'rise', words: 'until high, at the most', unit: 's', default: '10u' },
    TOLERANCE_INPUT,
    SERIES_INPUT,
  ],
  outputs: LINE_OUTPUTS,
  source: `${INPUT_SHEET}; ${OUTPUT_SHEET}`,
  run: (values) => pulled(values, values.number('capacitance')),
};

/** Capacitance of a metre of two wires beside each other, and of an input, in farads. */
const METRE = 50e-12;
const INPUT = 30e-12;

export const oneWire: Calculation = {
  id: 'one-wire-pull-up',
  words: 'Pull-up of a 1-Wire line by its length and its parts.',
  inputs: [
    ...LINE_INPUTS.map((input) => (input.name === 'vih' ? { ...input, default: '2.2' } : input)),
    { name: 'down', words: 'a resistor to ground that is there already; 0 for none', unit: 'Ω', default: '0' },
    { name: 'metres', words: 'wire in all, in metres', unit: '1', default: '3' },
    { name: 'parts', words: 'parts on the line', unit: '1', default: '1' },
    { name: 'rise', words: 'until high: of the 15 µs of a read the low pulse and the sampling take their part', unit: 's', default: '5u' },
    TOLERANCE_INPUT,
    SERIES_INPUT,
  ],
  outputs: LINE_OUTPUTS,
  source: 'DS18B20 datasheet, 1-Wire signalling: time slots; 50 pF per metre of cable and 30 pF per device assumed',
  run: (values) => pulled(values, above(values, 'metres') * METRE + above(values, 'parts') * INPUT),
};

export const inI2c: Calculation = {
  id: 'i2c-series',
  words: 'Largest resistor in series with an I2C line of a part.',
  inputs: [
    { name: 'vdd', words: 'supply of the bus', unit: 'V', default: '3.3' },
    { name: 'pull-up', words: 'pull-up of the line', unit: 'Ω', default: '4.7k' },
    { name: 'vol', words: 'low level at the part itself', unit: 'V', default: '0.2' },
    TOLERANCE_INPUT,
    SERIES_INPUT,
  ],
  outputs: [
    { name: 'mostOhms', unit: 'Ω', words: 'above it a low level is too near to the threshold' },
    { name: 'ohms', unit: 'Ω', words: 'next preferred value down' },
    { name: 'lowVolts', unit: 'V', words: 'low level behind it' },
  ],
  source: SERIES_PROTECTION,
  run(values) {
    const { working, ...found } = i2cSeries({
      volts: values.number('vdd'),
      pullOhms: values.number('pull-up'),
      lowVolts: values.number('vol'),
      tolerance: share(values, 'tolerance'),
      values: valuesIn(values, 1, 1e6),
    });
    return { outputs: { mostOhms: found.mostOhms, ohms: finite(found.ohms), lowVolts: found.lowVolts }, working };
  },
};

export const dataLine: Calculation = {
  id: 'damping',
  words: 'Resistor at the start of a data line: LED strips, long clock lines.',
  inputs: [
    { name: 'impedance', words: 'impedance of the wire: 100 to 120 Ω for two beside each other', unit: 'Ω', default: '100' },
    { name: 'drive', words: 'resistance of the output', unit: 'Ω', default: '30' },
    { name: 'capacitance', words: 'capacitance at the receiver, with its wire', unit: 'F', default: '50p' },
    { name: 'rate', words: 'bits a second', unit: '1', default: '800k' },
    SERIES_INPUT,
  ],
  outputs: [
    { name: 'exactOhms', unit: 'Ω', words: 'resistance exactly' },
    { name: 'ohms', unit: 'Ω', words: 'nearest preferred value' },
    { name: 'riseSeconds', unit: 's', words: 'rise at the receiver' },
    { name: 'verdict', unit: 'text', words: 'good, or slow (an edge takes more than a tenth of a bit)' },
  ],
  source: SOURCE_TERMINATION,
  run(values) {
    const { working, slow, ...found } = damping({
      impedanceOhms: values.number('impedance'),
      driveOhms: values.number('drive'),
      farads: values.number('capacitance'),
      bitsPerSecond: values.number('rate'),
      values: valuesIn(values, 1, 1e5),
    });
    return {
      outputs: { exactOhms: found.exactOhms, ohms: finite(found.ohms), riseSeconds: found.riseSeconds, verdict: slow ? 'slow' : 'good' },
      working,
    };
  },
};
