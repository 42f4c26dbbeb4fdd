import { buildInstance } from '@roof-chart/core/assign/model/buildInstance';
import type { BusController, Candidate, Group, Instance, Item, Member } from '@roof-chart/core/assign/model/instance';
import { assignPins } from '@roof-chart/core/assign/assignPins';
import { applyEdits } from '@roof-chart/core/plan/applyEdits';
import type { Edit } from '@roof-chart/core/plan/edit';
import { newPlan, type Plan, splitKey } from '@roof-chart/core/plan/plan';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';

/** Chance from a seed: the same numbers on every machine (mulberry32). */
class Chance {
  #state: number;
  constructor(seed: number) {
    this.#state = seed >>> 0;
  }
  /** From 0 to below 1. */
  next(): number {
    this.#state = (this.#state + 0x6d2b79f5) >>> 0;
    let t = this.#state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  }
  below(n: number): number {
    return Math.floor(this.next() * n);
  }
  pick<T>(list: readonly T[]): T {
    return list[this.below(list.length)]!;
  }
  some<T>(list: readonly T[], share: number): T[] {
    return list.filter(() => this.next() < share);
  }
}

const applied = (plan: Plan, edits: readonly Edit[], sheets: Sheets): Plan => {
  const result = applyEdits(plan, edits, sheets);
  return result.ok ? result.plan : plan;
};

/** A plan on a shipped board with random parts: half of the time settled, then with some wires taken away, moved or locked. */
function randomPlan(seed: number, sheets: Sheets, mostParts: number): Plan {
  const chance = new Chance(seed);
  const board = chance.pick([...sheets.boards.values()]).sheet;
  const parts = [...sheets.parts.values()].map((p) => p.sheet);
  let plan = newPlan('plan', 'Random', { id: board.id, version: board.version });
  const count = 1 + chance.below(mostParts);
  // Few kinds in a plan: parts of one kind are what makes addresses and selects meet.
  const kinds = Array.from({ length: 1 + chance.below(count) }, () => chance.pick(parts));
  const addOne = (n: number): Edit => {
    const sheet = chance.pick(kinds);
    return {
      kind: 'add-placement',
      placement: { id: `p${n}`, sheet: { id: sheet.id, version: sheet.version }, name: `P${n}`, straps: {} },
    };
  };
  for (let n = 0; n < count; n += 1) plan = applied(plan, [addOne(n)], sheets);
  if (chance.next() < 0.5) return plan;
  plan = assignPins(plan, sheets, { nodes: 300 })!.plan;
  for (const key of chance.some(Object.keys(plan.wires), 0.3)) {
    const place = splitKey(key);
    const pins = sheets.boards.get(board.id)!.ioPins;
    const what = chance.below(3);
    if (what === 0) plan = applied(plan, [{ kind: 'unwire', ...place }], sheets);
    else if (what === 1 && plan.wires[key]!.end.to === 'pin')
      plan = applied(plan, [{ kind: 'wire', ...place, end: { to: 'pin', pin: chance.pick(pins).id } }], sheets);
    else plan = applied(plan, [{ kind: 'lock', ...place, locked: true }], sheets);
  }
  plan = applied(plan, [addOne(count)], sheets);
  return wishing(plan, sheets, chance);
}

/** A third of the plans with wishes: pins, pins that are not to be, controllers, parts that lie together. */
function wishing(plan: Plan, sheets: Sheets, chance: Chance): Plan {
  if (chance.next() < 0.67) return plan;
  const board = sheets.boards.get(plan.board.id)!;
  const pins = board.ioPins.map((pin) => pin.id);
  const controllers = board.sheet.controllers.list.map((c) => c.id);
  const wish = () => {
    const what = chance.below(3);
    if (what === 0) return { pin: chance.pick(pins) };
    return what === 1 || controllers.length === 0
      ? { not: chance.some(pins, 0.3).slice(0, 200) }
      : { controller: chance.pick(controllers) };
  };
  let now = plan;
  for (const key of chance.some(Object.keys(plan.wires), 0.3))
    now = applied(now, [{ kind: 'wish', ...splitKey(key), wish: wish() }], sheets);
  const how = chance.pick(['adjacent', 'port'] as const);
  return applied(now, [{ kind: 'together', placement: chance.pick(plan.placements).id, how }], sheets);
}

export const realInstance = (seed: number, sheets: Sheets, mostParts: number): Instance => {
  const plan = randomPlan(seed, sheets, mostParts);
  return buildInstance(plan, sheets, sheets.boards.get(plan.board.id)!);
};

/** Some ways in which these items may lie together. */
function groupOf(chance: Chance, items: readonly Item[], pins: readonly string[]): Group {
  const alternatives = Array.from({ length: 1 + chance.below(4) }, () =>
    Object.fromEntries(items.map((item) => [item.id, chance.some(pins, 0.4)])),
  );
  return { id: 'group', alternatives };
}

/** A made-up instance that no board would give: crowded, with shared means, sets and clashes everywhere. */
export function madeUpInstance(seed: number): Instance {
  const chance = new Chance(seed ^ 0x5bd1e995);
  const pins = Array.from({ length: 4 + chance.below(14) }, (_, n) => `P${n}`);
  const means = Array.from({ length: chance.below(5) }, (_, n) => `means ${n}`);
  const grade = () => (chance.next() < 0.25 ? 1 : 0);
  const controllers = Array.from({ length: chance.below(4) }, (_, n): BusController => {
    const kind = chance.pick(['i2c', 'spi']);
    const names = kind === 'i2c' ? ['sda', 'scl'] : ['sck', 'mosi', 'miso'];
    const lines = Object.fromEntries(
      names.map((line) => [
        line,
        chance.some(pins, 0.4).map((pin) => ({ pin, caution: grade(), unusual: chance.below(3), waste: chance.below(30) })),
      ]),
    );
    const pickable = names.every((line) => lines[line]!.length > 0);
    if (!pickable || chance.next() < 0.5) return { id: `c${n}`, kind, lines };
    const sets = Array.from({ length: 1 + chance.below(3) }, () =>
      Object.fromEntries(names.map((line) => [line, chance.pick(lines[line]!).pin])),
    );
    return { id: `c${n}`, kind, lines, sets };
  });
  const items = Array.from({ length: chance.below(pins.length + 4) }, (_, n): Item => {
    const candidates = chance.some(pins, 0.5).map((pin): Candidate => {
      const uses = chance.some(means, 0.3);
      const unless = controllers.length > 0 && chance.next() < 0.05 ? chance.pick(controllers).id : undefined;
      return {
        pin,
        moved: chance.next() < 0.4 ? 1 : 0,
        caution: grade(),
        unusual: chance.below(3),
        waste: chance.below(40),
        ...(uses.length > 0 ? { uses } : {}),
        ...(unless ? { unless } : {}),
      };
    });
    return { id: `t${n}`, terminals: [`t${n}`], candidates, leave: { unwired: chance.next() < 0.8 ? 1 : 0, moved: chance.below(2) } };
  });
  const members = Array.from({ length: controllers.length > 0 ? chance.below(7) : 0 }, (_, n): Member => {
    const kind = chance.pick(controllers).kind;
    const lines = kind === 'i2c' ? ['sda', 'scl'] : chance.next() < 0.5 ? ['sck', 'mosi'] : ['sck', 'mosi', 'miso'];
    const fits = controllers.filter((c) => c.kind === kind && lines.every((line) => c.lines[line]!.length > 0));
    const here = Object.fromEntries(chance.some(lines, 0.4).map((line) => [line, { [chance.pick(pins)]: 1 }]));
    const fixed = Object.fromEntries(
      Object.entries(here)
        .filter(() => chance.next() < 0.15)
        .map(([line, at]) => [line, Object.keys(at)[0]!]),
    );
    const addresses =
      kind === 'i2c'
        ? Array.from({ length: 1 + chance.below(3) }, (_o, o) => ({
            addresses: [...new Set(Array.from({ length: 1 + chance.below(2) }, () => 0x20 + chance.below(5)))],
            straps: {},
            moved: o === 0 ? 0 : chance.below(2),
          }))
        : [];
    return {
      id: `m${n}`,
      kind,
      placements: [`m${n}`],
      lines,
      controllers: fits.map((c) => c.id),
      fixed,
      here,
      ...(chance.next() < 0.2 ? { avoid: { [chance.pick(lines)]: chance.some(pins, 0.3) } } : {}),
      addresses,
      ...(kind === 'i2c' && chance.next() < 0.2 ? { beyond: [0x20 + chance.below(5)] } : {}),
      leave: { unwired: lines.length, moved: Object.keys(here).length },
    };
  });
  const pairs = <T>(list: readonly T[]) => list.flatMap((a, at) => list.slice(at + 1).map((b) => [a, b] as const));
  return {
    format: 'roof-chart-instance',
    version: 2,
    items,
    members,
    controllers,
    clashes: chance.some(pairs(members.map((m) => m.id)), 0.15),
    groups: items.length > 2 && chance.next() < 0.3 ? [groupOf(chance, chance.some(items, 0.5), pins)] : [],
    resources: means.map((id) => ({ id, pairs: chance.some(pairs(items.map((i) => i.id)), 0.6) })),
  };
}
