import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { shippedSheets } from '../../tests/catalogue';
import { add, edited, stick, wire } from '../../tests/makePlan';
import { settle } from '../allocate/settle';
import { readPlanFile } from '../plan/planFile';
import type { Plan } from '../plan/plan';
import { diagnose, faultBook, faultKey, sureWires } from './diagnose';
import { drivenParts } from './driven';
import { answersOf, questionsFor } from './questions';
import { interview, ProbeSession } from './session';
import { sureEdits, verifiedOf } from './verified';
import { type BenchOptions, SimulatedBench, simulatedPort } from './simulatedBench';

const sheets = shippedSheets();
/** A demo with what it has left to solve solved. */
const demo = (id: string): Plan => {
  const read = readPlanFile(JSON.parse(readFileSync(join(__dirname, `../../../../demo/plans/${id}.json`), 'utf8')));
  if (!read.ok) throw new Error(read.fault);
  return settle(read.file.plan, sheets)!.plan;
};
const DEMOS = ['hive-watch', 'proofing-box', 'ferry-dial', 'workbench-scoreboard'].map(demo);
const hive = DEMOS[0]!;
const later = (milliseconds: number, act: () => void) => {
  const timer = setTimeout(act, milliseconds);
  return () => clearTimeout(timer);
};
/** Waits are as nothing, so that a probe that never answers does not hold the tests up. */
const hurried = (milliseconds: number, act: () => void) => later(milliseconds > 0 ? 20 : 0, act);
const talk = (plan: Plan, options: BenchOptions, asked = questionsFor(plan, sheets), goOn?: (done: number) => boolean) =>
  interview(new ProbeSession(simulatedPort(new SimulatedBench(plan, sheets, options), hurried), hurried), asked, goOn);

describe.each(DEMOS.map((plan) => [plan.name, plan] as const))('%s on the bench', (_, plan) => {
  test('wired as planned, nothing differs, whatever its resistors are within their tolerance', async () => {
    const book = faultBook(plan, sheets, questionsFor(plan, sheets));
    for (const seed of [1, 2, 3, 4, 5]) {
      const { answers, fault } = await talk(plan, { seed });
      expect(fault).toBeUndefined();
      expect(diagnose(book, answers).different).toEqual([]);
    }
  });
});

/** By demo and kind of fault: how many there are, how many a probe can feel, and how many of those are named. */
async function faultTable(): Promise<readonly (readonly [string, string, number, number, number])[]> {
  const rows = new Map<string, [string, string, number, number, number]>();
  for (const plan of DEMOS) {
    const book = faultBook(plan, sheets, questionsFor(plan, sheets));
    for (const { fault } of book.tried) {
      const { answers } = await talk(plan, { faults: [fault], seed: 7 }, book.questions);
      const { different, faults } = diagnose(book, answers);
      const row = rows.get(`${plan.name} ${fault.kind}`) ?? [plan.name, fault.kind, 0, 0, 0];
      rows.set(`${plan.name} ${fault.kind}`, row);
      row[2] += 1;
      if (different.length > 0) row[3] += 1;
      if (faults.some((one) => faultKey(one) === faultKey(fault))) row[4] += 1;
    }
  }
  return [...rows.values()];
}

test('every fault in every demo is injected; what is found is named, and the published table says what is missed', async () => {
  const rows = await faultTable();
  const table = rows.map(([plan, kind, all, found, named]) => `| ${plan} | ${kind} | ${all} | ${found} | ${named} | ${all - found} |`);
  const page = readFileSync(join(__dirname, '../../../../docs/bench-faults.md'), 'utf8');
  // Cells of the page are padded.
  const lines = page.split('\n').map((line) => line.replace(/ {2,}/g, ' '));
  expect(lines.filter((line) => /^\| [A-Z].* \| [a-z-]+ \| \d/.test(line))).toEqual(table);
  for (const [, , , found, named] of rows) expect(named).toBe(found);
  const of = (kind: string) => rows.filter((row) => row[1] === kind).reduce((sum, row) => [sum[0]! + row[2], sum[1]! + row[3]], [0, 0]);
  // What answers on a bus is always felt.
  for (const kind of ['wrong-address', 'no-pull-up']) expect(of(kind)[1]).toBe(of(kind)[0]);
}, 60_000);

test('LEDs with their resistor are driven by the probe, one after another; those of a common anode are left alone', () => {
  expect(drivenParts(hive, sheets)).toMatchObject([
    { placement: 'light-1', words: expect.stringMatching(/^drive GP\d+ 1 700$/) as string },
  ]);
  const lit = edited(
    stick(),
    sheets,
    add('a', 'led-red-5mm'),
    wire('a:A', 'GP2'),
    { kind: 'series', placement: 'a', terminal: 'A', ohms: 330 },
    add('b', 'led-red-5mm'),
    wire('b:A', 'GP3'),
  );
  expect(drivenParts(lit, sheets)).toEqual([{ placement: 'a', pins: [{ pin: 'GP2', label: 'anode' }], words: 'drive GP2 1 700' }]);
  expect(drivenParts(DEMOS[3]!, sheets)).toEqual([]);
});

test('a wire is sure where the answers are the planned ones, and would not be if it were one position off', () => {
  const book = faultBook(hive, sheets, questionsFor(hive, sheets));
  const sure = sureWires(book, book.planned);
  expect(sure).toEqual(expect.arrayContaining(['display-1:SDA', 'display-1:SCL']));
  expect(sure.length).toBeLessThan(Object.keys(hive.wires).length);
  // Where something differs nothing is sure; half an interview makes fewer wires sure.
  const wrong = book.tried.find((one) => one.fault.kind === 'no-pull-up')!;
  expect(sureWires(book, wrong.answers)).toEqual([]);
  expect(sureWires(book, book.planned.slice(0, 2)).length).toBeLessThan(sure.length);
  const kept = edited(hive, sheets, ...sureEdits(hive, sure));
  expect(verifiedOf(kept, sheets).sure).toBe(sure.length);
  expect(sureEdits(kept, sure)).toEqual([]);
});

describe('a probe that behaves badly', () => {
  const questions = questionsFor(hive, sheets);

  test('noise between the answers is overheard', async () => {
    const { answers, fault } = await talk(hive, { trouble: 'garbage' });
    expect([fault, answers]).toEqual([undefined, answersOf(hive, sheets, questions)]);
  });

  test.each([
    ['flood', 'flood', 0],
    ['stranger', 'stranger', 0],
    ['stall', 'silent', 4],
    ['unplug', 'gone', 4],
  ] as const)('%s ends in %s, and what was answered is kept', async (trouble, fault, kept) => {
    const result = await talk(hive, { trouble });
    expect([result.fault, result.answers.length]).toEqual([fault, kept]);
    expect(result.answers).toEqual(answersOf(hive, sheets, questions).slice(0, kept));
  });

  test('it can be stopped in the middle', async () => {
    const result = await talk(hive, {}, questions, (done) => done < 7);
    expect([result.fault, result.answers.length]).toEqual(['stopped', 7]);
  });

  test('requests that are none, and pins that are none, are refused in words', () => {
    const bench = new SimulatedBench(hive, sheets);
    expect(bench.answer('hello')).toEqual(['# what is that?']);
    expect(bench.answer('1 hello')).toEqual(['1 ok probe 1 rp2040-stick-40']);
    expect(bench.answer('2 read GP99 up')).toEqual(['2 no pin GP99']);
    expect(bench.answer('3 explode GP1 GP2')).toEqual(['3 no verb']);
    expect(bench.answer('5 rise GP4')).toEqual(['5 ok 0']);
    expect(bench.answer('6 rise GP9')).toEqual(['6 ok never']);
    expect(bench.answer('7 drive GP2 1 100')).toEqual(['7 ok']);
    expect(bench.answer('8 walk 100 GP2 GP3')).toEqual(['8 ok 2']);
    expect(bench.answer('9 walk 100 GP77')).toEqual(['9 no pin GP77']);
    expect(bench.answer('4 read GP4 sideways')).toEqual(['4 no pin sideways']);
  });
});
