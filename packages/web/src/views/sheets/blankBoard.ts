/** A board sheet with everything to be filled in, small enough to be read at one glance. */
const source = { document: '', trust: 'bench' };

export const BLANK_BOARD = {
  kind: 'board',
  schema: 1,
  id: 'my-board',
  version: 1,
  chip: '',
  form: '',
  title: '',
  summary: '',
  system: 'bare',
  logicRail: '3v3',
  headers: { source, list: [{ id: 'left', title: 'left edge', ends: ['USB end', 'far end'], side: 'left' }] },
  pins: {
    source,
    list: [
      { id: '3V3', header: 'left', position: 1, label: '3V3', kind: 'supply', rail: '3v3' },
      { id: 'GND', header: 'left', position: 2, label: 'GND', kind: 'ground' },
      { id: 'D0', header: 'left', position: 3, label: 'D0', kind: 'io', grade: 'free' },
    ],
  },
  controllers: { source, list: [] },
  rails: { source, list: [{ id: '3v3', label: '3V3', volts: { min: 3.2, typ: 3.3, max: 3.4 }, feed: '', direction: 'out' }] },
  electrical: {
    source,
    vdd: { min: 3, typ: 3.3, max: 3.6 },
    vihMin: { ratio: 0.7 },
    vilMax: { ratio: 0.3 },
    vohMin: { volts: 0, atMilliamps: 0 },
    volMax: { volts: 0, atMilliamps: 0 },
    inputMaxAboveSupply: 0,
    pinMilliamps: 0,
    resetState: '',
  },
  memory: { source, ramBytes: 0, flashBytes: 0, eepromBytes: 0 },
  onBoard: { source, list: [] },
  unknown: [],
};
