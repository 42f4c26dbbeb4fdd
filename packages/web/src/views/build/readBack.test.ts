import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { terminalText } from '@roof-chart/core/text/names';
import { buildSheet } from '@roof-chart/core/outputs/buildSheet';
import { readPlanFile } from '@roof-chart/core/plan/planFile';
import { endKey, type Plan, splitKey, terminalKey, type TerminalKey } from '@roof-chart/core/plan/plan';
import { shippedSheets } from '../../../../core/tests/catalogue';
import { settledPlan, corruptedPlan } from '../../../../core/tests/corruptedPlan';
import { addedComponents, nameless } from '../../../tests/addedComponents';
import { Nets, type PrintedCircuit, readBuildSheet } from '../../../tests/readBuildSheet';
import { asText } from '@roof-chart/core/text/views/buildText';

const sheets = shippedSheets();
const demo = (id: string): Plan => {
  const read = readPlanFile(JSON.parse(readFileSync(join(__dirname, `../../../../../demo/plans/${id}.json`), 'utf8')));
  if (!read.ok) throw new Error(read.fault);
  return read.file.plan;
};
const DEMOS = ['hive-watch', 'proofing-box', 'ferry-dial', 'workbench-scoreboard'];
const printed = (plan: Plan): PrintedCircuit => readBuildSheet(asText(plan, sheets, buildSheet(plan, sheets)!, []));

/** A terminal as it is printed. */
function nodeOf(plan: Plan, key: TerminalKey): string {
  const { placement, terminal } = splitKey(key);
  const sheet = plan.placements.find((p) => p.id === placement)!.sheet;
  return `${terminalText(plan, sheets, key)}#${sheets.parts.get(sheet.id)!.terminals.get(terminal)!.number}`;
}

/** What the plan connects, from its wires alone; soldered parts come with the board. */
function connected(plan: Plan): Nets {
  const nets = new Nets();
  const soldered = new Set(plan.placements.flatMap((p) => (p.onBoard ? [p.id] : [])));
  for (const [key, { end }] of Object.entries(plan.wires)) {
    if (soldered.has(splitKey(key).placement)) continue;
    const own = end.to === 'trimmer' || end.to === 'divider' ? `divider of ${key}` : endKey(end);
    const at = end.to === 'terminal' ? end : end.to === 'rail' && end.rail.includes(':') ? splitKey(end.rail) : undefined;
    nets.join(nodeOf(plan, key), at ? nodeOf(plan, terminalKey(at.placement, at.terminal)) : own);
  }
  return nets;
}

/** What the board has at a printed position, looked up in its sheet by header title and number. */
function conductorAt(plan: Plan, position: string): string {
  const { headers, pins, rails } = sheets.boards.get(plan.board.id)!.sheet;
  if (position.startsWith('rail ')) {
    const label = position.slice(5);
    const rail = rails.list.find((one) => one.label === label);
    return label === 'GND' ? 'ground' : rail ? `rail:${rail.id}` : `pin:${pins.list.find((pin) => pin.label === label)?.id}`;
  }
  const [title, number] = position.split('#');
  const header = headers.list.find((one) => one.title === title);
  const pin = pins.list.find((one) => one.header === header?.id && one.position === Number(number));
  if (!pin) return `nothing at ${position}`;
  if (pin.kind === 'ground') return 'ground';
  return pin.kind === 'supply' ? `rail:${pin.rail}` : `pin:${pin.sameAs ?? pin.id}`;
}

function follows(plan: Plan): void {
  const { nets, components, unread } = printed(plan);
  expect(unread).toEqual([]);
  // A terminal behind a transistor has no wire straight to its pin.
  const lines = asText(plan, sheets, buildSheet(plan, sheets)!, []).split('\n');
  for (const key of Object.keys(plan.drivers).filter((one) => plan.wires[one])) {
    const own = lines.filter(
      (line) =>
        / wire to /u.test(line) &&
        line.includes(`\t${terminalText(plan, sheets, key)}\t`) &&
        line.includes(`module pin ${nodeOf(plan, key).split('#')[1]} `),
    );
    for (const line of own) expect(line).toMatch(/, through .*(?:transistor|MOSFET)/u);
  }
  const terminals = new Set(Object.keys(sheetTerminals(plan)));
  const isTerminal = (node: string) => terminals.has(node);
  const wanted = connected(plan);
  expect(nets.groups(isTerminal)).toEqual(wanted.groups(isTerminal));
  // Each printed position is one conductor of the board, and the one that the plan means.
  for (const node of nets.nodes().filter((one) => !isTerminal(one) && !/^(?:junction |the (?:wiper|junction) of )/u.test(one))) {
    const key = conductorAt(plan, node);
    const [mine] = nets.nodes().filter((one) => isTerminal(one) && nets.find(one) === nets.find(node));
    if (mine !== undefined) expect({ node, key: wanted.find(mine) }).toEqual({ node, key: wanted.find(key) });
  }
  const { chipCircuit, pins, headers } = sheets.boards.get(plan.board.id)!.sheet;
  const at = (id: string) => {
    const pin = pins.list.find((one) => one.id === id)!;
    return `${headers.list.find((one) => one.id === pin.header)!.title}#${pin.position}`;
  };
  const used = new Set(Object.values(plan.wires).flatMap(({ end }) => (end.to === 'pin' ? [end.pin] : [])));
  const ofChip = (chipCircuit?.components ?? []).flatMap(({ name, ends, value }) =>
    ends.some((id) => used.has(id)) ? [] : [`${name}: ${ends.map(at).join(' and ')} ${value}`],
  );
  expect(components.map(nameless).toSorted()).toEqual([...ofChip, ...addedComponents(plan, sheets)].map(nameless).toSorted());
  // Each has a name of its own, and the legs that lead to another component lead to one that is there.
  const names = components.map((one) => one.slice(0, one.indexOf(':')));
  expect(new Set(names).size).toBe(names.length);
  for (const one of components)
    // A terminal is printed with its part before it, a component alone.
    for (const [, name] of one.matchAll(/(?:, | and | to )([RQ]\d+)\b/gu)) expect(names).toContain(name);
}

/** Every terminal of every part, by the name it is printed under; two of one name could not be told apart on the bench. */
function sheetTerminals(plan: Plan): { readonly [node: string]: TerminalKey } {
  const all = plan.placements.flatMap((p) =>
    [...(sheets.parts.get(p.sheet.id)?.terminals.keys() ?? [])].map((id) => terminalKey(p.id, id)),
  );
  const byNode = Object.fromEntries(all.map((key) => [nodeOf(plan, key), key]));
  expect(Object.keys(byNode)).toHaveLength(all.length);
  return byNode;
}

test.each(DEMOS)('the printed build sheet of %s, read back, is the circuit of the plan', (id) => follows(demo(id)));

test('the printed build sheet of any plan, read back, is the circuit of the plan', () => {
  fc.assert(fc.property(corruptedPlan(sheets), follows), { numRuns: 150 });
});

test.each(DEMOS)('a pin or position that is printed wrongly on the sheet of %s is noticed, wherever it stands', (id) => {
  const plan = demo(id);
  const lines = asText(plan, sheets, buildSheet(plan, sheets)!, []).split('\n');
  const said = (text: readonly string[]) => {
    const { nets, components, unread } = readBuildSheet(text.join('\n'));
    return JSON.stringify([nets.groups(), components, unread]);
  };
  const right = said(lines);
  let spoilt = 0;
  for (const [at, line] of lines.entries()) {
    if (!/^(?:Grounds|Power|Signals|Junctions)\t/u.test(line)) continue;
    for (const pattern of [
      /(?<=module pin )\d+/u,
      /(?<=position )\d+(?=,)/u,
      /(?<=row, position )\d+/u,
      /(?<=, pin )\d+(?=, (?:odd|even))/u,
    ]) {
      const wrong = line.replace(pattern, (n) => String(Number(n) + 40));
      if (wrong === line) continue;
      spoilt += 1;
      expect({ wrong, said: said(lines.with(at, wrong)) === right }).toEqual({ wrong, said: false });
    }
  }
  expect(spoilt).toBeGreaterThan(20);
});

test('whoever follows the sheet of an assigned plan has every part supplied and grounded, on each board', () => {
  const boards = [...sheets.boards.keys()];
  const parts = [...sheets.parts.values()]
    .filter(({ sheet }) => sheet.family === 'display' || sheet.family === 'sensor')
    .map(({ sheet }) => sheet.id);
  expect(parts.length).toBeGreaterThan(40);
  fc.assert(
    fc.property(fc.constantFrom(...boards), fc.array(fc.constantFrom(...parts), { minLength: 1, maxLength: 4 }), (board, list) => {
      const plan = settledPlan(sheets, board, list, 500);
      const { nets } = printed(plan);
      for (const [node, key] of Object.entries(sheetTerminals(plan))) {
        const { placement, terminal } = splitKey(key);
        const found = plan.placements.find((p) => p.id === placement)!;
        const { role, need } = sheets.parts.get(found.sheet.id)!.terminals.get(terminal)!;
        if (found.onBoard || need !== 'needed' || !['supply.vcc', 'ground'].includes(role) || !plan.wires[key]) continue;
        const met = nets.nodes().filter((one) => nets.find(one) === nets.find(node));
        const conductors = met
          .filter((one) => one !== node && !(one in sheetTerminals(plan)) && !one.startsWith('junction '))
          .map((one) => conductorAt(plan, one));
        expect({ node, met: conductors[0]?.replace(/:.*/u, '') }).toEqual({ node, met: role === 'ground' ? 'ground' : 'rail' });
      }
    }),
    { numRuns: 40 },
  );
});
