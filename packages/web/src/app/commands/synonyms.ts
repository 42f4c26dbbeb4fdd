/** What else people type for a command that leads to no view, by its id: trade terms, abbreviations, and what other programs call it. */
export const SYNONYMS: { readonly [command: string]: readonly string[] } = {
  auto: ['auto-assign', 'automatic'],
  'lock-all': ['soldered', 'freeze', 'pin'],
  'unlock-all': ['free'],
  plans: ['new plan', 'open', 'list', 'import'],
  library: ['sheets', 'board', 'part', 'datasheet', 'own board', 'pin table'],
  undo: ['revert', 'back'],
  redo: ['again'],
  versions: ['checkpoint', 'history', 'snapshot', 'restore', 'compare', 'diff'],
  theme: ['dark', 'light', 'appearance'],
  keys: ['help', 'keyboard', 'hotkeys'],
  download: ['export', 'save', 'file', 'backup', 'share', 'JSON'],
  print: ['paper', 'PDF'],
};

/** What else people type for a calculation, by its id. */
export const CALCULATION_SYNONYMS: { readonly [calculation: string]: readonly string[] } = {
  led: ['current limiting', 'dropping resistor', 'forward voltage'],
  contrast: ['contrast', 'VO', 'trimmer', 'potentiometer'],
  divider: ['voltage divider', '5 V to 3.3 V', 'level shifter'],
  'sensor-divider': ['thermistor', 'NTC', 'photoresistor', 'LDR'],
  multiplex: ['seven segment', 'duty cycle', 'refresh rate'],
  'current-set': ['MAX7219', 'RSET', 'ISET'],
  'bus-time': ['I2C time', 'baud', 'frame rate'],
  'spi-time': ['SPI time', 'frame rate', 'fps'],
  'line-pull-up': ['chip select pull-up', 'reset pull-up'],
  'one-wire-pull-up': ['DS18B20'],
  'i2c-series': ['series protection'],
  power: ['wattage', 'dissipation', 'rating'],
  'pull-up': ['I2C pull-up', '4.7 k', 'rise time'],
  ladder: ['resistor ladder', 'analog keypad', 'buttons on one pin'],
  debounce: ['bounce', 'button', 'RC filter'],
  'transistor-base': ['transistor', 'base resistor', 'relay', 'motor'],
  'transistor-gate': ['gate resistor', 'transistor', 'load switch'],
  bands: ['colour code', 'resistor code', 'SMD code'],
  damping: ['WS2812B', 'data line', 'ringing', '330 ohm'],
};
