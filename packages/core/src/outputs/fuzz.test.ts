import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import { shippedSheets } from '../../tests/catalogue';
import { randomText, seededRandom, spoilt } from '../../tests/fuzzTexts';
import { readScan } from '../bench/scan';
import { CALCULATIONS } from '../electrics/calculations/calculations';
import { readValues } from '../electrics/calculations/calculation';
import { identify } from '../identify/identify';
import { readLabels } from '../identify/labelForms';
import type { Plan } from '../plan/plan';
import { readPlanFile } from '../plan/planFile';
import { rescuePlanFile } from '../plan/rescuePlan';
import { parseSi } from '../quantity/parse';
import { readPinTable } from '../sheets/pinTable';
import { readSheet } from '../sheets/readSheet';
import { scoreParts } from '../sheets/searchParts';
import { identifier, inComment } from './constants/names';
import { matchWires, readWireList } from './wireList';

/** 5 000 here; a million with `npm run soak`. */
const INPUTS = Number(process.env['ROOF_CHART_FUZZ'] ?? 5000);
const SEED = Number(process.env['ROOF_CHART_SEED'] ?? 1);
/** A page that waits longer than 50 ms is felt to hang: `npm run soak` holds the parsers to that. Beside other work a text may take several
 *  times as long, so that here only those are found that take more than their share at any load. */
const LIMIT_MS = process.env['ROOF_CHART_FUZZ'] ? 50 : 2000;

const sheets = shippedSheets();
const parts = [...sheets.parts.values()].map(({ sheet }) => sheet);
const documents = [...parts, ...[...sheets.boards.values()].map(({ sheet }) => sheet)];
const hive = JSON.parse(readFileSync(join(__dirname, '../../../../demo/plans/hive-watch.json'), 'utf8')) as Plan;
const PARSERS = {
  scan: (text: string) => readScan(text),
  wires: (text: string) => matchWires(hive, sheets, readWireList(text)),
  labels: (text: string) => identify(parts, { labels: readLabels(text) }, 6),
  search: (text: string) => scoreParts(parts, text, 'all'),
  'pin table': (text: string) => readPinTable(text),
  number: (text: string) => ['Ω', 'Hz', 'F', 'V'].map((unit) => parseSi(text, unit)),
  'calculator input': (text: string) => {
    const calculation = CALCULATIONS[text.length % CALCULATIONS.length]!;
    try {
      return readValues(calculation, Object.fromEntries(calculation.inputs.map((input) => [input.name, text])));
    } catch (error) {
      // A sentence for the user; anything else is a fault.
      if (error instanceof RangeError) return error.message;
      throw error;
    }
  },
  'program name': (text: string) => [identifier(text), inComment(text)],
};
const READERS = {
  plan: (random: () => number) => readPlanFile(spoilt(random, hive)),
  'plan to rescue': (random: () => number) => rescuePlanFile(spoilt(random, hive)),
  sheet: (random: () => number) => readSheet(spoilt(random, documents[Math.floor(random() * documents.length)])),
};

/** The least of a few runs: what the machine did beside it is not the parser's. */
function leastTime(run: () => unknown): number {
  let least = Infinity;
  for (let n = 0; n < 4 && least > LIMIT_MS; n += 1) {
    const from = performance.now();
    run();
    least = Math.min(least, performance.now() - from);
  }
  return least;
}

/** A document takes ten times as long to spoil and read as a text: there are a fifth as many of each kind. */
const OF_DOCUMENTS = 5;
const each = Math.ceil(INPUTS / (Object.keys(PARSERS).length + Object.keys(READERS).length / OF_DOCUMENTS));
const documentsEach = Math.ceil(each / OF_DOCUMENTS);

test.each(Object.entries(PARSERS))(
  `%s: ${each} texts are read or refused, none slowly`,
  (name, parse) => {
    const random = seededRandom(SEED);
    const slow: string[] = [];
    for (let n = 0; n < each; n += 1) {
      // The longest that the fields take: most texts are short, a few are as long as they can be.
      const text = randomText(random, n % 50 === 0 ? 100_000 : 3000);
      const time = leastTime(() => parse(text));
      if (time > LIMIT_MS) slow.push(`${name}, text ${n} of seed ${SEED}: ${time.toFixed(0)} ms for ${text.length} characters`);
    }
    expect(slow).toEqual([]);
  },
  3_600_000,
);

test.each(Object.entries(READERS))(
  `%s: ${documentsEach} spoilt documents are read or refused, none slowly`,
  (name, read) => {
    const slow: string[] = [];
    for (let n = 0; n < documentsEach; n += 1) {
      const time = leastTime(() => read(seededRandom(SEED * 1_000_003 + n)));
      if (time > LIMIT_MS) slow.push(`${name}, document ${n} of seed ${SEED}: ${time.toFixed(0)} ms`);
    }
    expect(slow).toEqual([]);
  },
  3_600_000,
);

test.each([
  ['4 000 blanks', (n: number) => ' '.repeat(n)],
  ['an arrow among blanks', (n: number) => `a${' '.repeat(n)}->${' '.repeat(n)}b`],
  ['"to" among blanks', (n: number) => `a${' '.repeat(n)}to${' '.repeat(n)}b (${' '.repeat(n)}`],
  ['open brackets', (n: number) => '['.repeat(n)],
  ['tabs', (n: number) => '\t'.repeat(n)],
  ['digits', (n: number) => '9'.repeat(n)],
  ['one long label', (n: number) => 'B8I1'.repeat(n)],
  ['labels', (n: number) => 'SD0 '.repeat(n)],
  ['combining marks', (n: number) => `a${'\u0301'.repeat(n)}`],
])('%s, ten times the usual length: every parser is quick', (_, make) => {
  for (const [name, parse] of Object.entries(PARSERS)) {
    const time = leastTime(() => parse(make(40_000)));
    expect({ name, slow: time > LIMIT_MS * 2 }).toEqual({ name, slow: false });
  }
});
