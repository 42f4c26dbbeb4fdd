/** A part sheet with everything to be filled in: the editor's faults lead from one empty fact to the next. */
const source = { document: '', trust: 'bench' };

export const BLANK_PART = {
  kind: 'part',
  schema: 1,
  id: 'my-part',
  version: 1,
  chip: '',
  family: 'sensor',
  title: '',
  short: '',
  summary: '',
  words: [],
  terminals: {
    source,
    list: [
      { id: 'GND', number: 1, label: 'GND', role: 'ground', direction: 'in', need: 'needed' },
      { id: 'VCC', number: 2, label: 'VCC', role: 'supply.vcc', direction: 'in', need: 'needed' },
      { id: 'OUT', number: 3, label: '', role: 'gpio.in', direction: 'out', need: 'needed' },
    ],
  },
  bus: { source, kind: 'none' },
  supply: { source, volts: { min: 3, typ: 3.3, max: 3.6 }, typicalMilliamps: 0, peakMilliamps: 0, regulator: false },
  module: { source, passives: [] },
  firstLight: { source, see: '', causes: [] },
  twins: [],
  unknown: [],
};
