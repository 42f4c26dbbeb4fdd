import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { shippedSheets } from '../../tests/catalogue';
import { assignPins } from '../assign/assignPins';
import { readPlanFile } from '../plan/planFile';
import { faultBook, faultKey, faultPart } from './diagnose';
import { answerText, faultText, questionText } from '../text/faultText';
import { questionsFor } from './questions';

const sheets = shippedSheets();
const EXAMPLES = ['hive-watch', 'proofing-box', 'ferry-dial', 'workbench-scoreboard'];

describe.each(EXAMPLES)('%s in words', (id) => {
  const read = readPlanFile(JSON.parse(readFileSync(join(__dirname, `../../../../demo/plans/${id}.json`), 'utf8')));
  if (!read.ok) throw new Error(read.fault);
  const { plan } = assignPins(read.file.plan, sheets)!;
  const book = faultBook(plan, sheets, questionsFor(plan, sheets));
  const nameOf = (placement: string) => plan.placements.find((p) => p.id === placement)!.name;

  test('two faults never read alike, and each names its part by the name that it has in the plan', () => {
    const words = new Map<string, string>();
    for (const { fault } of book.tried) {
      const said = faultText(plan, sheets, fault);
      expect(words.get(said) ?? faultKey(fault)).toBe(faultKey(fault));
      words.set(said, faultKey(fault));
      expect(said).not.toMatch(/undefined|null|NaN|\{/);
      const part = faultPart(plan, sheets, fault);
      if (part !== undefined && fault.kind !== 'no-pull-up' && fault.kind !== 'short') expect(said).toContain(nameOf(part));
    }
    expect(words.size).toBeGreaterThan(5);
  });

  test('two questions never read alike, nor two answers to one question', () => {
    const asked = book.questions.map((question) => questionText(plan, sheets, question));
    expect(new Set(asked).size).toBe(asked.length);
    for (const [at, question] of book.questions.entries()) {
      const answers = new Set([book.planned[at], ...book.tried.map((one) => one.answers[at])].filter((one) => one !== undefined));
      const said = [...answers].map((answer) => answerText(question, answer));
      expect(new Set(said).size).toBe(answers.size);
      for (const one of said) expect(one).toMatch(/^[A-Za-z0-9]/);
    }
  });
});
