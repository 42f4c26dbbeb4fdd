/** The documents that formulas and limits are from, as a working cites them. */

/** Ohm's law, Kirchhoff's laws, capacitors and resistors in circuits. */
export const CIRCUIT_THEORY = 'IEC 60050-131, circuit theory';
export const PREFERRED_VALUES = 'IEC 60063, preferred values';
export const RESISTOR_MARKS = 'IEC 60062, marking codes';
/** Rated dissipation at 70 °C; half of it leaves room for a warm enclosure. */
export const RATED_DISSIPATION = 'IEC 60115-1, rated dissipation';
export const LED_SHEET = 'LED datasheet, forward voltage and absolute maximum ratings';
export const INPUT_SHEET = 'Datasheet of the input, VIL, VIH and absolute maximum ratings';
export const OUTPUT_SHEET = 'Datasheet of the output, VOL at IOL';
export const ADC_SHEET = 'Datasheet of the chip, analog input: source resistance and resolution';
export const FLICKER = 'IEEE 1789-2015, visible flicker';
export const SPI_GUIDE = 'SPI Block Guide S12SPIV3, transmission formats';
export const SOURCE_TERMINATION = 'IPC-2251, series termination';
export const FORCED_GAIN = '2N3904 datasheet, VCE(sat) and VBE(sat) at a forced gain of 10';
export const MOSFET_SHEET = 'MOSFET datasheet, RDS(on) at VGS, gate charge, power dissipation';
export const CONTRAST_DRIVE = 'HD44780U datasheet, power supply for liquid crystal display drive';
export const SERIES_PROTECTION = 'I2C-bus specification UM10204, series protection resistors';
