import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { shippedSheets } from '../../tests/catalogue';
import { add, edited, stick, wire } from '../../tests/makePlan';
import { isSoak } from '../../tests/runs';
import { assignPins } from '../assign/assignPins';
import { newPlan, type Plan, terminalKey } from '../plan/plan';
import { readPlanFile } from '../plan/planFile';
import { additionOf } from '../review/addition';
import type { PartSheet } from '../sheets/partSheet';
import { diagnose, faultBook, faultKey, sureWires } from './diagnose';
import { drivenPart } from './driven';
import { answersOf } from './answers';
import { heardAs, isForProbe, type Question, questionLine, questionsFor } from './questions';
import { askOne, interview, ProbeSession } from './session';
import { sureEdits, verifiedOf } from './verified';
import { type BenchOptions, SimulatedBench, simulatedPort } from './simulatedBench';

const sheets = shippedSheets();
/** A demo with what it has left to solve solved. */
const demo = (id: string): Plan => {
  const read = readPlanFile(JSON.parse(readFileSync(join(__dirname, `../../../../demo/plans/${id}.json`), 'utf8')));
  if (!read.ok) throw new Error(read.fault);
  return assignPins(read.file.plan, sheets)!.plan;
};
const DEMOS = ['hive-watch', 'proofing-box', 'ferry-dial', 'workbench-scoreboard'].map(demo);
const hive = DEMOS[0]!;
const later = (milliseconds: number, act: () => void) => {
  const timer = setTimeout(act, milliseconds);
  return () => clearTimeout(timer);
};
/** Waits are as nothing, so that a probe that never answers does not hold the tests up. */
const hurried = (milliseconds: number, act: () => void) => later(milliseconds > 0 ? 20 : 0, act);
const talk = (plan: Plan, options: BenchOptions, asked = questionsFor(plan, sheets), goOn?: (done: number) => boolean, isSeen = false) => {
  const bench = new SimulatedBench(plan, sheets, options);
  const look = isSeen ? (question: Question) => bench.look(question) : undefined;
  return interview(new ProbeSession(simulatedPort(bench, hurried), hurried), asked, goOn, look);
};

describe.each(DEMOS.map((plan) => [plan.name, plan] as const))('%s on the bench', (_, plan) => {
  test('wired as planned, nothing differs, whatever its resistors are within their tolerance', async () => {
    const book = faultBook(plan, sheets, questionsFor(plan, sheets));
    for (const seed of [1, 2, 3, 4, 5]) {
      const { answers, fault } = await talk(plan, { seed }, book.questions, undefined, true);
      expect(fault).toBeUndefined();
      expect(diagnose(book, answers)).toMatchObject({ answered: book.questions.length, different: [] });
    }
  });
});

/** By demo and kind of fault: how many there are, how many the probe feels alone, and how many are found and named when somebody acts and
 *  looks as well. */
async function faultTable(): Promise<readonly (readonly [string, string, number, number, number, number])[]> {
  const rows = new Map<string, [string, string, number, number, number, number]>();
  for (const plan of DEMOS) {
    const book = faultBook(plan, sheets, questionsFor(plan, sheets));
    for (const { fault } of book.tried) {
      const { answers } = await talk(plan, { faults: [fault], seed: 7 }, book.questions, undefined, true);
      const alone = answers.map((answer, at) => (isForProbe(book.questions[at]!) ? answer : undefined));
      const { different, faults } = diagnose(book, answers);
      const row = rows.get(`${plan.name} ${fault.kind}`) ?? [plan.name, fault.kind, 0, 0, 0, 0];
      rows.set(`${plan.name} ${fault.kind}`, row);
      row[2] += 1;
      if (diagnose(book, alone).different.length > 0) row[3] += 1;
      if (different.length > 0) row[4] += 1;
      if (faults.some((one) => faultKey(one) === faultKey(fault))) row[5] += 1;
    }
  }
  return [...rows.values()];
}

test('every fault in every demo is injected, found and named; the published table says what the probe feels alone', async () => {
  const rows = await faultTable();
  const table = rows.map(
    ([plan, kind, all, alone, found, named]) => `| ${plan} | ${kind} | ${all} | ${alone} | ${found} | ${named} | ${all - found} |`,
  );
  const page = readFileSync(join(__dirname, '../../../../docs/bench-faults.md'), 'utf8');
  // Cells of the page are padded.
  const lines = page.split('\n').map((line) => line.replace(/ {2,}/g, ' '));
  expect(lines.filter((line) => /^\| [A-Z].* \| [a-z-]+ \| \d/.test(line))).toEqual(table);
  for (const [, , all, , found, named] of rows) expect([found, named]).toEqual([all, all]);
  const of = (kind: string) => rows.filter((row) => row[1] === kind).reduce((sum, row) => [sum[0]! + row[2], sum[1]! + row[3]], [0, 0]);
  // What answers on a bus is always felt.
  for (const kind of ['wrong-address', 'no-pull-up']) expect(of(kind)[1]).toBe(of(kind)[0]);
}, 60_000);

/** A part alone on a board, with what its buses need to rest high. */
function alone(board: string, part: PartSheet): Plan | undefined {
  const { sheet } = sheets.boards.get(board)!;
  const added = additionOf(newPlan('plan-1', 'Test', { id: sheet.id, version: sheet.version }), sheets, part)?.plan;
  if (!added) return undefined;
  const wired = part.terminals.list.filter((t) => t.role === 'onewire.data').map((t) => terminalKey(added.placements[0]!.id, t.id));
  return {
    ...added,
    pulls: Object.fromEntries(wired.map((key) => [key, { ohms: 4700, to: 'supply' as const }])),
    busSettings: Object.fromEntries(sheet.controllers.list.filter((c) => c.kind === 'i2c').map((c) => [c.id, { addedOhms: 4700 }])),
  };
}

/** Two boards of unlike voltage; here one of them, with `npm run soak` both. */
const BOARDS = ['atmega328p-5v-shield', 'rp2040-stick-40'].slice(0, isSoak ? 2 : 1);

test.each(BOARDS)('every fault of every part alone on %s is found and named, and none where there is none', (board) => {
  const [missed, tried]: [string[], Set<string>] = [[], new Set()];
  for (const { sheet: part } of sheets.parts.values()) {
    const plan = alone(board, part);
    if (!plan) continue;
    const book = faultBook(plan, sheets, questionsFor(plan, sheets));
    const fine = new SimulatedBench(plan, sheets, { seed: 3 });
    expect([
      part.id,
      diagnose(
        book,
        book.questions.map((q) => fine.look(q)),
      ).different,
    ]).toEqual([part.id, []]);
    for (const { fault } of book.tried) {
      const bench = new SimulatedBench(plan, sheets, { faults: [fault], seed: 5 });
      const { faults } = diagnose(
        book,
        book.questions.map((q) => bench.look(q)),
      );
      if (!faults.some((one) => faultKey(one) === faultKey(fault))) missed.push(`${part.id} ${faultKey(fault)}`);
      tried.add(part.id);
    }
  }
  expect(missed).toEqual([]);
  expect(tried.size).toBeGreaterThan(100);
});

test('a card is asked over SPI, a display is made to show, keys and knobs are moved, and outputs only with leave', () => {
  const asked = DEMOS.flatMap((plan) =>
    questionsFor(plan, sheets).filter((q) => 'needs' in q || q.ask === 'watch' || q.ask === 'turn' || q.ask === 'search'),
  );
  const lines = asked.map((q) => `${'placement' in q ? q.placement : ''} ${q.ask} ${questionLine(q) ?? '-'}`);
  expect(lines).toEqual(
    expect.arrayContaining([
      'storage-1 reply spi GP18 GP19 GP16 GP17 ^ffffffffffffffffffff 400000000095ffffffffffffffff',
      'encoder-1 turn turn GP10 GP11 8000',
      'encoder-1 watch watch GP12 8000',
      'scale-1 sign -',
      ' search search D7',
      'output-1 sign drive D9 1 500',
      'output-3 sign pulse D10 370 185 500',
      'input-1 watch span A0 8000',
      'output-2 sign pulse IO38 20000 1500 500',
      // Two in a chain take it once each.
      'display-3 sign spi GPIO11 GPIO10 - GPIO26 0f010f01',
    ]),
  );
  const moving = asked.filter((q) => q.ask === 'sign' && q.moves).map((q) => (q.ask === 'sign' ? q.placement : ''));
  expect(moving).toEqual(['output-1', 'output-2', 'output-3', 'output-1', 'output-2']);
  expect(asked.filter((q) => q.ask === 'sign' && q.moves).some(isForProbe)).toBe(false);
});

test('what a probe says is heard as an answer, whatever else it says', () => {
  const plan = DEMOS[1]!;
  const find = (ask: Question['ask']) => [...questionsFor(hive, sheets), ...questionsFor(plan, sheets)].find((q) => q.ask === ask)!;
  const card = find('reply');
  expect(
    ['ffffffffffffff01ff', '01ffffffffffffffff', 'ffffffffffffff05ff', 'ffffffffffffffffff', '', 'zz'].map((said) => heardAs(card, said)),
  ).toEqual(['1', '0', '0', '0', '0', '0']);
  expect(['none', '2811223344556677', '2811223344556677 2811223344556678'].map((said) => heardAs(find('search'), said))).toEqual([
    'none',
    '1',
    '2',
  ]);
  const analog = questionsFor(plan, sheets).find((q) => q.ask === 'watch' && q.analog)!;
  expect(['10 30', '40 41', 'converter', ''].map((said) => heardAs(analog, said))).toEqual(['1', '0', '0', '0']);
});

test('of faults that answer alike the usual ones come first', () => {
  const book = faultBook(DEMOS[1]!, sheets, questionsFor(DEMOS[1]!, sheets));
  const dark = book.tried.find(({ fault }) => faultKey(fault) === 'one-off display-1:CLK D12')!;
  const { faults, exact } = diagnose(book, dark.answers);
  expect(exact).toBe(true);
  expect(faults.map((one) => one.kind)).toEqual(['swapped', 'swapped', 'dead', ...faults.slice(3).map(() => 'one-off')]);
  expect(faults.map(faultKey)).toContain('one-off display-1:CLK D12');
});

test('LEDs with their resistor are driven by the probe, one after another; those of a common anode are left alone', () => {
  const driven = (plan: Plan) => plan.placements.flatMap((p) => drivenPart(plan, sheets, p) ?? []);
  expect(driven(hive)).toMatchObject([{ words: expect.stringMatching(/^drive GP\d+ 1 700$/) as string }]);
  const lit = edited(
    stick(),
    sheets,
    add('a', 'led-red-5mm'),
    wire('a:A', 'GP2'),
    { kind: 'series', placement: 'a', terminal: 'A', ohms: 330 },
    add('b', 'led-red-5mm'),
    wire('b:A', 'GP3'),
  );
  expect(driven(lit)).toEqual([{ lines: [{ key: 'a:A', pin: 'GP2' }], words: 'drive GP2 1 700' }]);
  expect(driven(DEMOS[3]!)).toEqual([]);
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
    const planned = answersOf(hive, sheets, questions);
    expect([fault, answers]).toEqual([undefined, planned.map((answer, at) => (isForProbe(questions[at]!) ? answer : undefined))]);
  });

  test.each([
    ['flood', 'flood', 0],
    ['stranger', 'stranger', 0],
    ['stall', 'silent', 4],
    ['unplug', 'gone', 4],
  ] as const)('%s ends in %s, and the answers so far are kept', async (trouble, fault, kept) => {
    const result = await talk(hive, { trouble });
    expect([result.fault, result.answers.length]).toEqual([fault, kept]);
    expect(result.answers).toEqual(answersOf(hive, sheets, questions).slice(0, kept));
  });

  test('who does not look any more has seen nothing, and what the probe shows is ended all the same', async () => {
    const asked = questionsFor(DEMOS[1]!, sheets).find((q) => q.ask === 'sign' && q.undo !== undefined)!;
    const heard: string[] = [];
    const port = simulatedPort(new SimulatedBench(DEMOS[1]!, sheets), hurried);
    const overheard = { ...port, send: (line: string) => (heard.push(line.replace(/^\d+ /, '')), port.send(line)) };
    const session = new ProbeSession(overheard, hurried);
    expect(await askOne(session, asked, () => Promise.resolve(undefined))).toEqual({ ok: false, fault: 'stopped' });
    expect(heard).toEqual(['spi D13 D11 - D8 0f01', 'spi D13 D11 - D8 0f00']);
    expect(await askOne(session, asked, () => 'else')).toEqual({ ok: true, answer: 'else' });
  });

  test('it can be stopped in the middle', async () => {
    const result = await talk(hive, {}, questions, (done) => done < 7);
    expect([result.fault, result.answers.length]).toEqual(['stopped', 7]);
  });

  test('requests that are none, and pins that are none, are refused in words', () => {
    const bench = new SimulatedBench(hive, sheets);
    expect(bench.answer('hello')).toEqual(['# unknown command']);
    expect(bench.answer('1 hello')).toEqual(['1 ok probe 1 rp2040-stick-40']);
    expect(bench.answer('2 read GP99 up')).toEqual(['2 no pin GP99']);
    expect(bench.answer('3 explode GP1 GP2')).toEqual(['3 no verb']);
    expect(bench.answer('5 rise GP4')).toEqual(['5 ok 0']);
    expect(bench.answer('6 rise GP9')).toEqual(['6 ok never']);
    expect(bench.answer('7 drive GP2 1 100')).toEqual(['7 ok']);
    expect(bench.answer('8 walk 100 GP2 GP3')).toEqual(['8 ok 2']);
    expect(bench.answer('9 walk 100 GP77')).toEqual(['9 no pin GP77']);
    expect(bench.answer('4 read GP4 sideways')).toEqual(['4 no pin sideways']);
    expect(bench.answer('10 spi GP1 GP2 - GP77 ff')).toEqual(['10 no pin GP77']);
    expect(bench.answer('11 spi GP1 GP2 - - ff0')).toEqual(['11 no verb']);
    expect(bench.answer('12 spi GP1 GP2 - - ff00')).toEqual(['12 ok ffff']);
    expect(bench.answer('13 watch GP1')).toEqual(['13 no verb']);
    // Pins that the plan leaves free are felt, too.
    expect([14, 15, 16].map((n, at) => bench.answer(`${n} held ${['GP4', 'GP27', 'GP99'][at]}`)[0])).toEqual([
      '14 ok 1',
      '15 ok 0',
      '16 no pin GP99',
    ]);
    expect(bench.answer('17 search GP27')).toEqual(['17 ok none']);
    expect(new SimulatedBench(DEMOS[1]!, sheets).answer('1 search D7')).toEqual(['1 ok 2800000000000000 2800000000000001']);
  });
});
