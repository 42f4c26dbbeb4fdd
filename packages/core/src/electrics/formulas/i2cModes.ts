/** What a mode of the I2C bus allows. */
export interface I2cMode {
  readonly name: string;
  readonly maxHz: number;
  /** Longest rise from 0.3 to 0.7 of the supply, in seconds. */
  readonly riseSeconds: number;
  /** What every member must be able to sink, in amperes, and the voltage it must reach then. */
  readonly sinkAmps: number;
  readonly farads: number;
}

export const I2C_STANDARD = 'I2C-bus specification UM10204, tables 9 and 10';

/** The modes of UM10204, slowest first. */
export const I2C_MODES: readonly I2cMode[] = [
  { name: 'standard mode', maxHz: 100e3, riseSeconds: 1000e-9, sinkAmps: 3e-3, farads: 400e-12 },
  { name: 'fast mode', maxHz: 400e3, riseSeconds: 300e-9, sinkAmps: 3e-3, farads: 400e-12 },
  { name: 'fast mode plus', maxHz: 1e6, riseSeconds: 120e-9, sinkAmps: 20e-3, farads: 550e-12 },
];

/** What every member must sink at its low level: at 2 V and below 2 mA in standard and fast mode.
 *  @param vdd what the bus is pulled to, in volts */
export const sinkAmps = (mode: I2cMode, vdd: number): number => (vdd > 2 ? mode.sinkAmps : Math.min(mode.sinkAmps, 2e-3));

/** The mode whose timing a clock needs; undefined above 1 MHz, where a bus with pull-ups has none. */
export function i2cModeAt(hz: number): I2cMode | undefined {
  return I2C_MODES.find((mode) => hz <= mode.maxHz);
}
