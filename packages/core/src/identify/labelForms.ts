/** Printed labels as they are compared: case, blanks and ornament do not matter. */

/** A label without ornament.
 *  @example plainLabel(' d/c ') // 'DC' */
export function plainLabel(label: string): string {
  return label
    .normalize('NFKC')
    .toUpperCase()
    .replace(/[^A-Z0-9+-]/g, '');
}

const LOOK_ALIKES: readonly (readonly [RegExp, string])[] = [
  [/[O0QD]/g, 'O'],
  [/[I1L|]/g, 'I'],
  [/[S5]/g, 'S'],
  [/[B8]/g, 'B'],
  [/[Z2]/g, 'Z'],
];

/** The label with characters that are easily misread unified: 0 and O, 1 and I and L, 5 and S.
 *  @example blurred('SDO') === blurred('5D0') // true */
export function blurred(label: string): string {
  return LOOK_ALIKES.reduce((text, [letters, one]) => text.replace(letters, one), plainLabel(label));
}

/** Labels in a text, as printed along a row: parted by blanks, commas, bars or new lines.
 *  @example readLabels('GND, VCC | SCL') // ['GND', 'VCC', 'SCL'] */
export function readLabels(text: string): readonly string[] {
  return text
    .slice(0, LABEL_LIMITS.text)
    .split(/[\s,;|]+/)
    .filter(Boolean)
    .map((label) => label.slice(0, LABEL_LIMITS.label));
}

/** No row of labels is longer, and no label. */
export const LABEL_LIMITS = { text: 2000, labels: 48, label: 24 } as const;

/** The meaning of ambiguous labels from their row: with a chip select or a data/command line, SCL is the SPI clock and SDA its data. */
export type RowContext = 'spi' | 'i2c' | 'none';

const SPI_MARKS = new Set(['CS', 'SS', 'CSN', 'CE', 'DC', 'NSS', 'SCS', 'LCDCS', 'A0', 'RS', 'MISO', 'MOSI', 'BLK']);

/** @param labels the printed row */
export function rowContext(labels: readonly string[]): RowContext {
  const plain = labels.map(plainLabel);
  if (plain.some((label) => SPI_MARKS.has(label)) && !plain.includes('SDO')) return 'spi';
  return plain.includes('SDA') && plain.includes('SCL') ? 'i2c' : 'none';
}
