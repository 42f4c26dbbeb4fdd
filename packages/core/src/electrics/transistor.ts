/** Voltage between base and emitter of a transistor that is on. */
export const BASE_VOLTS = 0.7;

/** The base resistor with which a transistor carries a load at a forced gain, in ohms; not above zero where the level is too low.
 *  @example baseResistor({ high: 3.3, vbe: 0.7, gain: 10, amps: 0.05 }) // 520 */
export const baseResistor = ({
  high,
  vbe,
  gain,
  amps,
}: {
  readonly high: number;
  readonly vbe: number;
  readonly gain: number;
  readonly amps: number;
}): number => ((high - vbe) * gain) / amps;
