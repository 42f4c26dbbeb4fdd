import { has, type With } from '../collections/has';
import type { BoardPin, BoardSheet } from './boardSheet';

/** A pin with a place on a header. */
export type HeaderPin = With<BoardPin, 'position'>;

/** The pins of a header, in the order of the sheet. */
export const headerPins = ({ pins }: Pick<BoardSheet, 'pins'>, header: string): readonly HeaderPin[] =>
  pins.list.filter(has('position')).filter((pin) => pin.header === header);
