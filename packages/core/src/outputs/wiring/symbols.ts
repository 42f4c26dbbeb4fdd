import type { Component } from '../../electrics/reports/components';

/** The circuit symbol of a component as an SVG path around its middle, 44 pixels long. */
export const SYMBOLS: { readonly [K in Component['kind']]: string } = {
  resistor: 'M-22 0H-11M-11 -4.5H11V4.5H-11ZM11 0H22',
  trimmer: 'M-22 0H-11M-11 -4.5H11V4.5H-11ZM11 0H22M-9 10L9 -10M9 -10L3.6 -8.4M9 -10L8 -4.4',
  capacitor: 'M-22 0H-3M-3 -8V8M3 -8V8M3 0H22',
  diode: 'M-22 0H-7M-7 -6.5L7 0L-7 6.5ZM7 -6.5V6.5M7 0H22',
  transistor: 'M-22 0H-5M-5 -8V8M-5 -3L8 -10M-5 3L8 10M8 10L2.6 9.4M8 10L6 5.2',
};
