import { colourBands } from './calculations/bands';
import { busTimes, spiTimes } from './calculations/busTimes';
import type { Calculation } from './calculations/calculation';
import { pullUp } from './calculations/pullUp';
import { base, digits, divider, keypad, led, power, sensor } from './calculations/resistors';

/** Every calculation that can be asked for by name, in the order of names. */
export const CALCULATIONS: readonly Calculation[] = [
  colourBands,
  busTimes,
  divider,
  keypad,
  led,
  digits,
  power,
  pullUp,
  sensor,
  spiTimes,
  base,
].toSorted((a, b) => (a.id < b.id ? -1 : 1));
