import fc from 'fast-check';
import { terminalText } from '@roof-chart/core/text/names';
import { buildSheet } from '@roof-chart/core/outputs/buildSheet';
import { addressesUnder } from '@roof-chart/core/nets/addresses';
import { newPlan, type Plan, terminalKey } from '@roof-chart/core/plan/plan';
import { completeAddition } from '@roof-chart/core/review/additionNeeds';
import { planFindingsOf } from '@roof-chart/core/review/review';
import type { PartSheet, PartTerminal, Strap } from '@roof-chart/core/sheets/partSheet';
import { shippedSheets } from '../../../../core/tests/catalogue';
import { type Nets, readBuildSheet } from '../../../tests/readBuildSheet';
import { asText } from '@roof-chart/core/text/views/buildText';

const sheets = shippedSheets();

/** A plan made as its user would: part by part, each with what it needs. */
function added(board: string, parts: readonly string[]): Plan {
  const { version } = sheets.boards.get(board)!.sheet;
  let plan = newPlan('p', 'P', { id: board, version });
  for (const id of parts) {
    const addition = completeAddition(plan, sheets, sheets.parts.get(id)!.sheet)!;
    plan = addition.needs?.plan ?? addition.plan;
  }
  return plan;
}

/** What is on the bench when the printed sheet, and nothing else, has been followed: nets with level shifters as what they are. */
class Bench {
  readonly text: string;
  readonly nets: Nets;
  readonly components: readonly string[];

  constructor(readonly plan: Plan) {
    this.text = asText(plan, sheets, buildSheet(plan, sheets)!, []);
    const { nets, components, unread } = readBuildSheet(this.text);
    expect(unread).toEqual([]);
    [this.nets, this.components] = [nets, components];
    for (const { id, sheet } of plan.placements) {
      const part = sheets.parts.get(sheet.id)!.sheet;
      for (const { low, high } of part.levelShifter?.channels ?? []) nets.join(this.node(id, part, low), this.node(id, part, high));
    }
  }

  node(id: string, part: PartSheet, terminal: string): string {
    const { number } = part.terminals.list.find((t) => t.id === terminal)!;
    return `${terminalText(this.plan, sheets, terminalKey(id, terminal))}#${number}`;
  }

  /** What of the board, or of the breadboard, a terminal is connected to: `ground`, `rail`, `pin`, `divider`. */
  meets(id: string, part: PartSheet, terminal: string): readonly string[] {
    const own = this.node(id, part, terminal);
    const { headers, pins, rails } = sheets.boards.get(this.plan.board.id)!.sheet;
    return this.nets.nodes().flatMap((node) => {
      if (this.nets.find(node) !== this.nets.find(own)) return [];
      if (/^the (?:wiper|junction) of /u.test(node)) return ['divider'];
      if (node.startsWith('rail '))
        return [rails.list.some(({ label }) => label === node.slice(5)) ? 'rail' : node === 'rail GND' ? 'ground' : 'pin'];
      const [title, position] = node.split('#');
      const header = headers.list.find((one) => one.title === title);
      const pin = header && pins.list.find((one) => one.header === header.id && one.position === Number(position));
      if (this.feeds(node)) return ['rail'];
      return pin ? [pin.kind === 'ground' ? 'ground' : pin.kind === 'supply' ? 'rail' : 'pin'] : [];
    });
  }

  /** Whether a node is a supply output that works: its module is grounded, and fed if it is a regulator. */
  feeds(node: string): boolean {
    return this.plan.placements.some(({ id, sheet }) => {
      const part = sheets.parts.get(sheet.id)!.sheet;
      const given = part.supplies?.list.find(({ output }) => this.node(id, part, output) === node);
      const ground = part.terminals.list.find(({ role }) => role === 'ground');
      return (
        given !== undefined &&
        this.meets(id, part, ground!.id).includes('ground') &&
        (given.regulator === undefined || this.meets(id, part, given.regulator.from).includes('rail'))
      );
    });
  }

  /** The components with an end at a terminal. */
  at(id: string, terminal: string): readonly string[] {
    const own = terminalText(this.plan, sheets, terminalKey(id, terminal));
    return this.components.filter((one) => one.split(/: |, | and | wiper /u).includes(own));
  }
}

const isLine = ({ role }: PartTerminal): boolean => /^(?:i2c|spi)\./u.test(role);

/** What a display or sensor lacks on the bench. */
function lacks(bench: Bench, id: string, part: PartSheet): readonly string[] {
  const meets = (t: PartTerminal) => bench.meets(id, part, t.id);
  return part.terminals.list.flatMap((t): string[] => {
    const met = meets(t);
    const need = t.need === 'needed';
    if (t.bias && !met.some((one) => one === 'divider' || one === 'ground')) return [`${t.id}: contrast not set`];
    if (t.ifOpen?.with && !met.some((one) => one === 'rail' || one === 'ground')) return [`${t.id}: open (${t.ifOpen.note})`];
    if (t.seriesOhms !== undefined && bench.at(id, t.id).length === 0) return [`${t.id}: without its resistor`];
    if (!need || bench.plan.drivers[terminalKey(id, t.id)]) return [];
    if (t.role === 'ground' && !part.polarity && !met.includes('ground')) return [`${t.id}: not grounded`];
    if (t.role === 'supply.vcc' && !part.polarity && !met.includes('rail')) return [`${t.id}: not supplied`];
    if (isLine(t) && !t.chain && !met.includes('pin')) return [`${t.id}: bus line not at the board`];
    return [];
  });
}

/** The pull-ups on the module at a line, and those that the sheet says to add. */
function pullUps(bench: Bench, id: string, part: PartSheet, terminal: string): { readonly module: number; readonly printed: number } {
  const own = bench.nets.find(bench.node(id, part, terminal));
  let [module, printed] = [0, 0];
  for (const other of bench.plan.placements) {
    const sheet = sheets.parts.get(other.sheet.id)!.sheet;
    for (const t of sheet.terminals.list) {
      if (bench.nets.find(bench.node(other.id, sheet, t.id)) !== own) continue;
      if (!other.pullUpsCut && sheet.module.pullUps?.some((pull) => pull.terminals.includes(t.id))) module += 1;
      if (sheet.levelShifter?.ohms !== undefined && sheet.levelShifter.channels.some((c) => c.low === t.id || c.high === t.id)) module += 1;
      printed += bench.at(other.id, t.id).length;
    }
  }
  const { pins } = sheets.boards.get(bench.plan.board.id)!.sheet;
  const fixed = pins.list.filter((pin) => pin.duties?.some((duty) => duty.duty === 'pull-up')).length;
  return { module: module + fixed, printed };
}

/** The state of a strap as it is on the bench: by what its terminal meets, or by what the sheet says to do at its jumper. */
function strapOnBench(bench: Bench, id: string, part: PartSheet, strap: Strap): string {
  if (strap.by === 'jumper') {
    const name = bench.plan.placements.find((p) => p.id === id)!.name;
    const said = bench.text.split('\n').filter((line) => line.startsWith(`Jumpers and straps\t${name}\t`));
    return strap.states.find(({ words }) => said.some((line) => line.split('\t')[2] === words))?.id ?? strap.default;
  }
  const own = strap.terminal ?? strap.id;
  const met = bench.meets(id, part, own);
  const line = (role: string) => {
    const other = part.terminals.list.find((t) => t.role === role);
    return other !== undefined && bench.nets.find(bench.node(id, part, own)) === bench.nets.find(bench.node(id, part, other.id));
  };
  const tie = line('i2c.sda')
    ? 'sda'
    : line('i2c.scl')
      ? 'scl'
      : met.includes('ground')
        ? 'ground'
        : met.includes('rail')
          ? 'supply'
          : undefined;
  return strap.states.find((state) => tie !== undefined && state.tie === tie)?.id ?? strap.default;
}

/** The addresses on each data line of the bench. */
function addressesOnBench(bench: Bench): ReadonlyMap<string, readonly number[]> {
  const byLine = new Map<string, number[]>();
  for (const { id, sheet } of bench.plan.placements) {
    const part = sheets.parts.get(sheet.id)!.sheet;
    const sda = part.terminals.list.find((t) => t.role === 'i2c.sda');
    if (!sda) continue;
    const states = Object.fromEntries((part.bus.straps ?? []).map((strap) => [strap.id, strapOnBench(bench, id, part, strap)]));
    const line = bench.nets.find(bench.node(id, part, sda.id));
    byLine.set(line, [...(byLine.get(line) ?? []), ...addressesUnder(part, states).map(({ address }) => address)]);
  }
  return byLine;
}

const boards = [...sheets.boards.keys()].filter((id) => sheets.boards.get(id)!.sheet.controllers.list.some(({ kind }) => kind === 'i2c'));
const bare = [...sheets.parts.values()]
  .filter(({ sheet }) => sheet.family === 'display' || sheet.family === 'sensor')
  .map(({ sheet }) => sheet.id);

test('who follows the sheet and nothing else has displays and sensors supplied, set, on a complete bus, pulled up once, each at its address', () => {
  let seen = 0;
  fc.assert(
    fc.property(fc.constantFrom(...boards), fc.array(fc.constantFrom(...bare), { minLength: 1, maxLength: 5 }), (board, parts) => {
      const plan = added(board, parts);
      // What the product calls an error stands on top of the sheet: it is not for the sheet to mend.
      if (planFindingsOf(plan, sheets).some((f) => f.level === 'clash')) return;
      seen += 1;
      const bench = new Bench(plan);
      for (const addresses of addressesOnBench(bench).values()) expect(addresses).toEqual([...new Set(addresses)]);
      for (const { id, sheet, onBoard } of plan.placements) {
        const part = sheets.parts.get(sheet.id)!.sheet;
        if (onBoard || !bare.includes(part.id)) continue;
        expect({ part: part.id, lacks: lacks(bench, id, part) }).toEqual({ part: part.id, lacks: [] });
        for (const t of part.terminals.list.filter(({ role, need }) => need === 'needed' && (role === 'i2c.sda' || role === 'i2c.scl'))) {
          const { module, printed } = pullUps(bench, id, part, t.id);
          expect({ part: part.id, line: t.id, pulled: module + printed > 0 }).toEqual({ part: part.id, line: t.id, pulled: true });
          // Never a second resistor on a line that has one already.
          expect({ part: part.id, line: t.id, twice: printed > 1 }).toEqual({ part: part.id, line: t.id, twice: false });
        }
      }
    }),
    { numRuns: 60 },
  );
  expect(seen).toBeGreaterThan(15);
});

test.each([
  ['lcd-1602-parallel', 'atmega328p-5v-shield', ['RV1', 'R1']],
  ['lcd-2004-parallel', 'rp2040-stick-40', ['RV1', 'R1']],
] as const)('%s from nothing on %s: contrast and backlight are set by what is on the sheet', (part, board, names) => {
  const bench = new Bench(added(board, [part]));
  expect(lacks(bench, 'display-1', sheets.parts.get(part)!.sheet)).toEqual([]);
  expect(bench.components.map((one) => one.split(':')[0])).toEqual(names);
  // Left out of the sheet, it is missed on the bench.
  for (const name of names) {
    const without = bench.text
      .split('\n')
      .filter((line) => !new RegExp(`\\b${name}\\b`, 'u').test(line))
      .join('\n');
    const { nets, components } = readBuildSheet(without);
    const torn = Object.assign(Object.create(Bench.prototype) as Bench, { plan: bench.plan, text: without, nets, components });
    expect(lacks(torn, 'display-1', sheets.parts.get(part)!.sheet)).not.toEqual([]);
  }
});
