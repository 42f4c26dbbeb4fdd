import { colourBands, power } from './calculations/bands';
import { busTimes, spiTimes } from './calculations/busTimes';
import type { Calculation } from './calculations/calculation';
import { contrast, divider, sensor } from './calculations/dividers';
import { bounce, keypad } from './calculations/keys';
import { currentSetting, digits, led } from './calculations/lamps';
import { dataLine, inI2c, oneWire, select } from './calculations/lines';
import { pullUp } from './calculations/pullUp';
import { base, gate } from './calculations/transistors';

/** Every calculation by name, in alphabetical order. */
export const CALCULATIONS: readonly Calculation[] = [
  colourBands,
  busTimes,
  contrast,
  currentSetting,
  dataLine,
  bounce,
  divider,
  inI2c,
  keypad,
  led,
  select,
  digits,
  oneWire,
  power,
  pullUp,
  sensor,
  spiTimes,
  base,
  gate,
].toSorted((a, b) => (a.id < b.id ? -1 : 1));
