import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { readSheet } from '../src/sheets/readSheet';
import { indexSheets, type Sheets } from '../src/sheets/sheetIndex';

const folder = join(__dirname, '../../catalogue');

/** Every sheet file of the catalogue as parsed JSON, by file name. */
export function catalogueFiles(): ReadonlyMap<string, unknown> {
  const names = ['boards', 'parts'].flatMap((kind) => readdirSync(join(folder, kind)).map((name) => `${kind}/${name}`));
  return new Map(names.map((name) => [name, JSON.parse(readFileSync(join(folder, name), 'utf8')) as unknown]));
}

/** The shipped sheets with a second version of two boards and two parts. */
export function versionedSheets(): Sheets {
  const { boards, parts } = shippedSheets();
  const list = [...boards.values(), ...parts.values()].map((s) => s.sheet);
  const again = ['rp2040-stick-40', 'atmega328p-5v-shield', 'oled-096-ssd1306-i2c', 'lcd-2004-pcf8574'];
  const second = list.filter((s) => again.includes(s.id)).map((s) => ({ ...s, version: 2, summary: `${s.summary} Second version.` }));
  return indexSheets([...list, ...second]);
}

let shipped: Sheets | undefined;

/** The shipped sheets, read and indexed; read once, because they are values.
 *  @throws Error when one is not a valid sheet */
export const shippedSheets = (): Sheets => (shipped ??= readShipped());

function readShipped(): Sheets {
  const read = [...catalogueFiles()].map(([name, document]) => {
    const result = readSheet(document);
    if (!result.ok) throw new Error(`${name}: ${JSON.stringify(result.faults)}`);
    return result.sheet;
  });
  return indexSheets(read);
}
