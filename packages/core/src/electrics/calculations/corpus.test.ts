import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { CALCULATION_CASES } from '../../../tests/calculationCases';
import { shippedSheets } from '../../../tests/catalogue';
import { parseSi } from '../../quantity/parse';
import { CALCULATIONS } from './calculations';
import { type Calculation, type CalcInput, outputWords, readValues } from './calculation';

const FILE = join(__dirname, '../../../tests/corpus/calculations.txt');
type Given = Readonly<Record<string, string>>;

const rounded = (value: unknown): unknown => (typeof value === 'number' ? Number(value.toPrecision(9)) : value);

/** What a calculation gives for these inputs, each step of it, and what it draws; or why it refuses them. */
function answer(calculation: Calculation, given: Given, isBase: boolean): readonly string[] {
  try {
    const { outputs, working, spans, values } = calculation.run(readValues(calculation, given), { sheets: shippedSheets });
    return [
      `  ${Object.entries(outputs)
        .map(([name, value]) => `${name} ${String(rounded(value))}`)
        .join(', ')}`,
      ...working.map(({ formula, values: numbers, source }) => `    ${isBase ? [formula, numbers, source].join(' | ') : numbers}`),
      ...(spans ? [`    ${JSON.stringify(spans, (_, value: unknown) => rounded(value))}`] : []),
      ...(values ? [`    ${values.map(rounded).join(', ')}`] : []),
    ];
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    return [`  refused: ${error.message}`];
  }
}

/** Other texts for one input: half and twice of its number, nothing, less than nothing, and what is none. */
function others({ unit, default: usual }: CalcInput, given: string | undefined): readonly string[] {
  const text = given ?? usual ?? '';
  if (unit === 'text') return ['', 'other'];
  const value = text.includes(',') ? undefined : parseSi(text, unit === '1' ? '' : unit);
  const near = value === undefined || !Number.isFinite(value) ? [] : [String(value / 2), String(value * 2), String(value * 40)];
  return [...near, '0', '1', '-1', '', 'many', '1M'];
}

// A search among all resistors takes seconds with many keys.
const isQuick = (calculation: Calculation, given: Given): boolean => calculation.id !== 'ladder' || Number(given['keys']) < 7;

test('what every calculation gives, with each input half, double, none and wrong, is as it was read', () => {
  const lines = CALCULATIONS.flatMap((calculation) => [
    `# ${calculation.id}: ${calculation.words} ${calculation.source}`,
    ...calculation.inputs.map(({ name, words, unit, default: usual }) => `# in ${name}, ${unit}: ${words} (${usual ?? 'required'})`),
    ...calculation.outputs.map(
      ({ name, words, unit, meanings = {} }) =>
        `# out ${[`${name}, ${unit}: ${words}`, ...Object.entries(meanings).map(([value, meaning]) => `${value} = ${meaning}`)].join(' | ')}`,
    ),
    ...CALCULATION_CASES[calculation.id]!.flatMap((base) => {
      const varied = calculation.inputs.flatMap((input) =>
        others(input, base[input.name]).map((text): Given => ({ ...base, [input.name]: text })),
      );
      return [base, ...varied]
        .filter((given) => isQuick(calculation, given))
        .flatMap((given) => [`${calculation.id} ${JSON.stringify(given)}`, ...answer(calculation, given, given === base)]);
    }),
  ]);
  if (process.env['ROOF_CHART_WRITE']) writeFileSync(FILE, `${lines.join('\n')}\n`);
  expect(lines).toEqual(readFileSync(FILE, 'utf8').trimEnd().split('\n'));
});

test('every verdict that a calculation comes to has a meaning', () => {
  const all = readFileSync(FILE, 'utf8').split('\n');
  const seen = new Map<string, Set<string>>();
  let id = '';
  for (const line of all) {
    id = /^([a-z0-9-]+) \{/.exec(line)?.[1] ?? id;
    const verdict = /^ {2}.*\bverdict ([a-z-]+)/.exec(line)?.[1];
    if (verdict) seen.set(id, new Set([...(seen.get(id) ?? []), verdict]));
  }
  const judged = CALCULATIONS.filter(({ outputs }) => outputs.some(({ name }) => name === 'verdict'));
  for (const { id: own, outputs } of judged) {
    const { meanings = {} } = outputs.find(({ name }) => name === 'verdict')!;
    const strange = [...(seen.get(own) ?? [])].filter((value) => meanings[value] === undefined);
    expect([own, strange]).toEqual([own, []]);
    expect([own, outputWords({ words: 'verdict', meanings }, 'good')]).toEqual([
      own,
      meanings['good'] ? `verdict: ${meanings['good']}` : 'verdict',
    ]);
  }
  expect(judged.length).toBeGreaterThan(7);
});
