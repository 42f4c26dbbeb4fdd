import { colourBands, power } from './bands';
import { busTimes, spiTimes } from './busTimes';
import type { Calculation } from './calculation';
import { contrast, divider, sensor } from './dividers';
import { bounce, keypad } from './keys';
import { currentSetting, digits, led } from './leds';
import { dataLine, inI2c, oneWire, select } from './lines';
import { pullUp } from './pullUp';
import { base, gate } from './transistors';

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
