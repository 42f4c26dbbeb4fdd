import type { WireColour } from '../plan/plan';

/** The real wires' colours, the same in both themes and in files. */
export const WIRE_HEX: { readonly [C in WireColour]: string } = {
  red: '#c9302c',
  black: '#1c1c1c',
  yellow: '#d9b21c',
  blue: '#3567b8',
  green: '#3f9248',
  orange: '#d9772b',
  white: '#fdfdfd',
  grey: '#8d8d8d',
  violet: '#7a57ad',
  brown: '#7a4a26',
};
