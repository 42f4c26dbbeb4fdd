import { damping, i2cSeries, linePull } from '../formulas/linePull';
import {
  above,
  type CalcInput,
  type Calculation,
  cornersFrom,
  finite,
  SERIES_INPUT,
  share,
  TOLERANCE_INPUT,
  type Values,
  valuesIn,
  verdictOutput,
} from './calculation';
import { INPUT_SHEET, OUTPUT_SHEET, SERIES_PROTECTION, SOURCE_TERMINATION } from '../formulas/documents';

const LINE_OUTPUTS: Calculation['outputs'] = [
  { name: 'leastOhms', unit: 'Ω', words: 'minimum (IOL)' },
  { name: 'mostOhms', unit: 'Ω', words: 'maximum (leakage, rise time and pull-down together)' },
  { name: 'limit', unit: 'text', words: 'limiting factor: leakage, rise or pull-down' },
  { name: 'ohms', unit: 'Ω', words: 'preferred value nearest to the geometric mean' },
  { name: 'restVolts', unit: 'V', words: 'idle level, minimum' },
  { name: 'riseSeconds', unit: 's', words: 'rise time to VIH, maximum' },
  { name: 'lowAmps', unit: 'A', words: 'current while the line is low' },
];

/** Inputs that every pulled-up line has. */
const LINE_INPUTS: readonly CalcInput[] = [
  { name: 'vdd', words: 'line supply', unit: 'V', default: '3.3' },
  { name: 'vih', words: 'VIH of the input', unit: 'V', default: '2.31' },
  { name: 'leak', words: 'total input leakage', unit: 'A', default: '10u' },
  { name: 'vol', words: 'VOL', unit: 'V', default: '0.4' },
  { name: 'iol', words: 'IOL at this level', unit: 'A', default: '4m' },
];

function pulled(values: Values, farads: number) {
  const tolerance = share(values, 'tolerance');
  const { working, ...found } = linePull({
    volts: values.number('vdd'),
    highVolts: values.number('vih'),
    leakAmps: values.number('leak'),
    downOhms: values.number('down'),
    lowVolts: values.number('vol'),
    lowAmps: values.number('iol'),
    farads,
    riseSeconds: values.number('rise'),
    tolerance,
    values: valuesIn(values, 100, 1e6),
  });
  const { ohms, leastOhms, mostOhms } = found;
  return {
    ...cornersFrom(
      'Ω',
      ohms === undefined
        ? []
        : [{ label: 'preferred value', range: { min: ohms * (1 - tolerance), typ: ohms, max: ohms * (1 + tolerance) } }],
      { from: leastOhms, to: mostOhms },
    ),
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
  words: 'Pull-up of a chip select or reset line.',
  inputs: [
    ...LINE_INPUTS,
    { name: 'down', words: 'existing pull-down (0: none)', unit: 'Ω', default: '0' },
    { name: 'capacitance', words: 'line capacitance', unit: 'F', default: '50p' },
    { name: 'rise', words: 'rise time to VIH, maximum', unit: 's', default: '10u' },
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
  words: 'Pull-up of a 1-Wire line from its length and number of devices.',
  inputs: [
    ...LINE_INPUTS.map((input) => (input.name === 'vih' ? { ...input, default: '2.2' } : input)),
    { name: 'down', words: 'existing pull-down (0: none)', unit: 'Ω', default: '0' },
    { name: 'metres', words: 'total wire length, m', unit: '1', default: '3' },
    { name: 'parts', words: 'devices on the line', unit: '1', default: '1' },
    { name: 'rise', words: 'rise time to VIH (part of the 15 µs read slot)', unit: 's', default: '5u' },
    TOLERANCE_INPUT,
    SERIES_INPUT,
  ],
  outputs: LINE_OUTPUTS,
  source: 'DS18B20 datasheet, 1-Wire signalling: time slots; 50 pF per metre of cable and 30 pF per device assumed',
  run: (values) => pulled(values, above(values, 'metres') * METRE + above(values, 'parts') * INPUT),
};

export const inI2c: Calculation = {
  id: 'i2c-series',
  words: 'Largest series resistor in an I2C line.',
  inputs: [
    { name: 'vdd', words: 'bus supply VDD', unit: 'V', default: '3.3' },
    { name: 'pull-up', words: 'bus pull-up', unit: 'Ω', default: '4.7k' },
    { name: 'vol', words: 'VOL of the device', unit: 'V', default: '0.2' },
    TOLERANCE_INPUT,
    SERIES_INPUT,
  ],
  outputs: [
    { name: 'mostOhms', unit: 'Ω', words: 'maximum (noise margin 0.1 VDD)' },
    { name: 'ohms', unit: 'Ω', words: 'next preferred value down' },
    { name: 'lowVolts', unit: 'V', words: 'low level on the bus side' },
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
  words: 'Series termination of a data line: LED strips, long clock lines.',
  inputs: [
    { name: 'impedance', words: 'line impedance (100 to 120 Ω for two parallel wires)', unit: 'Ω', default: '100' },
    { name: 'drive', words: 'output resistance', unit: 'Ω', default: '30' },
    { name: 'capacitance', words: 'load capacitance, including the wire', unit: 'F', default: '50p' },
    { name: 'rate', words: 'bit rate, bit/s', unit: '1', default: '800k' },
    SERIES_INPUT,
  ],
  outputs: [
    { name: 'exactOhms', unit: 'Ω', words: 'exact resistance' },
    { name: 'ohms', unit: 'Ω', words: 'nearest preferred value' },
    { name: 'riseSeconds', unit: 's', words: 'rise time at the receiver' },
    verdictOutput({
      good: 'rise time up to 1/10 of a bit',
      slow: 'rise time above 1/10 of a bit',
    }),
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
