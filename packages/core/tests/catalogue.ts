import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import type { BoardSheet } from '../src/sheets/boardSheet';
import type { PartSheet } from '../src/sheets/partSheet';
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

/** Digest of the sheets that were valid when a test last read them: to validate them takes a second in each test file. */
const VALID = join(__dirname, '../../../node_modules/.cache/roof-chart-valid-sheets');

function readShipped(): Sheets {
  const files = [...catalogueFiles()];
  const digest = createHash('sha256').update(JSON.stringify(files)).digest('hex');
  if (existsSync(VALID) && readFileSync(VALID, 'utf8') === digest)
    return indexSheets(files.map(([, document]) => document as BoardSheet | PartSheet));
  const read = files.map(([name, document]) => {
    const result = readSheet(document);
    if (!result.ok) throw new Error(`${name}: ${JSON.stringify(result.faults)}`);
    return result.sheet;
  });
  mkdirSync(dirname(VALID), { recursive: true });
  writeFileSync(VALID, digest);
  return indexSheets(read);
}
