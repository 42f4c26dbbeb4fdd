/** What the inputs without a default are here, and a second case of every calculation that is not the default one. */
export const CALCULATION_CASES: { readonly [id: string]: readonly Readonly<Record<string, string>>[] } = {
  bands: [{ ohms: '4k7' }, { ohms: '0.1', tolerance: '0.01' }],
  'bus-time': [{ write: '3' }, { write: '2', read: '6', transfers: '3', rate: '50', hz: '100k' }],
  contrast: [{}, { supply: '3.3', glass: '3' }],
  'current-set': [{ sheet: 'driver-max7219-dip24' }, { sheet: 'driver-max7219-dip24', current: '13m', vf: '3.1', series: 'E96' }],
  damping: [{}, { impedance: '120', rate: '30M' }],
  debounce: [{}, { pull: '4k7', bounce: '1m' }, { 'in-series': '8k' }],
  divider: [{}, { 'total-max': '3k', series: 'E12' }],
  'i2c-series': [{}, { vdd: '5', 'pull-up': '2k2' }],
  ladder: [{ keys: '5' }, { keys: '3', series: '100, 1k, 10k' }],
  led: [{}, { supply: '12', vf: '3.2', 'vf-min': '2.8', 'vf-max': '3.6', current: '20m', drop: '0.3', drive: '25' }],
  'line-pull-up': [{}, { down: '100k' }],
  multiplex: [{}, { digits: '8', dwell: '2m', common: 'anode' }],
  'one-wire-pull-up': [{}, { metres: '20' }],
  power: [
    { ohms: '4k7', current: '10m' },
    { ohms: '0.1', current: '3' },
  ],
  'pull-up': [{}, { 'pull-ups': '10k, 4k7', hz: '100k' }],
  'sensor-divider': [
    { from: '1k', to: '100k' },
    { from: '32k', to: '3.6k', units: '40', bits: '12' },
  ],
  'spi-time': [{}, { bytes: '19202', hz: '40M', rate: '20' }],
  'transistor-base': [{ load: '150m' }, { load: '20m', beta: '20' }],
  'transistor-gate': [{ load: '1' }, { load: '3', rds: '20m', 'most-watts': '1' }],
};
