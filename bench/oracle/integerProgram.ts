import type { BusController, Instance, Member } from '@roof-chart/core/assign/model/instance';

/** The allocation problem as an integer program in LP format, written from the rules in `instance.ts` and from nothing
 *  that the product's own solver does: so that the two can be held against each other. */

export const TIERS = ['unwired', 'moved', 'caution', 'unusual', 'waste'] as const;
export type Tier = (typeof TIERS)[number];

interface Term {
  readonly variable: string;
  readonly by: number;
}

/** Rows and objective of a program that grows. */
class Program {
  readonly rows: string[] = [];
  readonly binaries: string[] = [];
  readonly objective: { readonly [T in Tier]: Term[] } = { unwired: [], moved: [], caution: [], unusual: [], waste: [] };

  binary(name: string): string {
    this.binaries.push(name);
    return name;
  }

  cost(tier: Tier, variable: string, by: number): void {
    if (by !== 0) this.objective[tier].push({ variable, by });
  }

  row(terms: readonly Term[], sign: '=' | '<=' | '>=', value: number): void {
    if (terms.length > 0) this.rows.push(`${sum(terms)} ${sign} ${value}`);
  }
}

const one = (variable: string): Term => ({ variable, by: 1 });
const minus = (variable: string): Term => ({ variable, by: -1 });
const sum = (terms: readonly Term[]): string =>
  terms.map(({ variable, by }) => `${by < 0 ? '-' : '+'} ${Math.abs(by)} ${variable}`).join('\n ');

function itemRows(program: Program, instance: Instance, onPin: Map<string, Term[]>): Map<string, readonly string[]> {
  const users = new Map<string, string[]>();
  for (const [i, item] of instance.items.entries()) {
    const left = program.binary(`li${i}`);
    program.cost('unwired', left, item.leave.unwired);
    program.cost('moved', left, item.leave.moved);
    const all = item.candidates.map((candidate, k) => {
      const name = program.binary(`u${i}_${k}`);
      for (const tier of ['moved', 'caution', 'unusual', 'waste'] as const) program.cost(tier, name, candidate[tier]);
      onPin.set(candidate.pin, [...(onPin.get(candidate.pin) ?? []), one(name)]);
      for (const resource of candidate.uses ?? []) {
        const key = `${resource}\n${item.id}`;
        users.set(key, [...(users.get(key) ?? []), name]);
      }
      return name;
    });
    program.row([...all, left].map(one), '=', 1);
  }
  return users;
}

const joins = (m: number, c: number): string => `x${m}_${c}`;

function memberRows(program: Program, instance: Instance, controllers: ReadonlyMap<string, number>): void {
  for (const [m, member] of instance.members.entries()) {
    const left = program.binary(`lm${m}`);
    program.cost('unwired', left, member.leave.unwired);
    program.cost('moved', left, member.leave.moved);
    const all = member.controllers.map((id) => program.binary(joins(m, controllers.get(id)!)));
    program.row([...all, left].map(one), '=', 1);
    if (member.addresses.length === 0) continue;
    const options = member.addresses.map((option, o) => {
      const name = program.binary(`a${m}_${o}`);
      program.cost('moved', name, option.moved);
      return name;
    });
    program.row([...options.map(one), ...all.map(minus)], '=', 0);
  }
}

/** Members that may be on a controller, with their places. */
const membersOf = (instance: Instance, controller: BusController): readonly (readonly [number, Member])[] =>
  [...instance.members.entries()].filter(([, member]) => member.controllers.includes(controller.id));

function lineRows(program: Program, instance: Instance, controller: BusController, c: number, onPin: Map<string, Term[]>): void {
  const members = membersOf(instance, controller);
  const chosen = controller.sets?.map((_, s) => program.binary(`z${c}_${s}`));
  if (chosen) program.row(chosen.map(one), '<=', 1);
  for (const [l, [line, pins]] of Object.entries(controller.lines).entries()) {
    const users = members.filter(([, member]) => member.lines.includes(line));
    if (users.length === 0) continue;
    const at = new Map(pins.map(({ pin }, p) => [pin, `y${c}_${l}_${p}`]));
    for (const { pin, caution, unusual, waste } of pins) {
      const name = program.binary(at.get(pin)!);
      program.cost('caution', name, caution);
      program.cost('unusual', name, unusual);
      program.cost('waste', name, waste);
      onPin.set(pin, [...(onPin.get(pin) ?? []), one(name)]);
      if (!controller.sets) continue;
      const allowing = controller.sets.flatMap((set, s) => (set[line] === pin ? [chosen![s]!] : []));
      program.row([one(name), ...allowing.map(minus)], '<=', 0);
    }
    const pinNames = [...at.values()];
    program.row(pinNames.map(one), '<=', 1);
    for (const [m, member] of users) {
      const x = joins(m, c);
      program.row([...pinNames.map(one), minus(x)], '>=', 0);
      for (const pin of member.avoid?.[line] ?? []) if (at.has(pin)) program.row([one(at.get(pin)!), one(x)], '<=', 1);
      const fixed = member.fixed[line];
      if (fixed !== undefined) program.row([...(at.has(fixed) ? [one(at.get(fixed)!)] : []), minus(x)], '>=', 0);
      for (const [n, [here, count]] of Object.entries(member.here[line] ?? {}).entries()) {
        const moved = `w${m}_${c}_${l}_${n}`;
        program.cost('moved', moved, count);
        program.row([one(moved), ...(at.has(here) ? [one(at.get(here)!)] : []), minus(x)], '>=', 0);
      }
    }
  }
}

function addressRows(program: Program, instance: Instance, controller: BusController, c: number): void {
  const members = membersOf(instance, controller);
  for (const [n, [a, first]] of members.entries())
    for (const [b, second] of members.slice(n + 1)) {
      const using = (m: number, member: Member, address: number) =>
        member.addresses.flatMap((option, o) => (option.addresses.includes(address) ? [one(`a${m}_${o}`)] : []));
      const addresses = new Set(first.addresses.flatMap((o) => o.addresses));
      for (const address of addresses) {
        const [mine, theirs] = [using(a, first, address), using(b, second, address)];
        if (theirs.length > 0) program.row([...mine, ...theirs, one(joins(a, c)), one(joins(b, c))], '<=', 3);
      }
    }
  for (const [a, holder] of members)
    for (const [b, member] of members)
      for (const [o, option] of member.addresses.entries())
        if (option.addresses.some((address) => holder.beyond?.includes(address))) {
          const on = a === b ? [one(joins(a, c))] : [one(joins(a, c)), one(joins(b, c))];
          program.row([one(`a${b}_${o}`), ...on], '<=', on.length);
        }
}

/** The program of one tier, with what the tiers before must not exceed. */
export function integerProgram(instance: Instance): (tier: Tier, before: readonly number[]) => string {
  const program = new Program();
  const onPin = new Map<string, Term[]>();
  const controllers = new Map(instance.controllers.map((controller, c) => [controller.id, c]));
  const places = new Map(instance.members.map((member, m) => [member.id, m]));
  const users = itemRows(program, instance, onPin);
  memberRows(program, instance, controllers);
  for (const [c, controller] of instance.controllers.entries()) {
    lineRows(program, instance, controller, c, onPin);
    addressRows(program, instance, controller, c);
    for (const [a, b] of instance.clashes) {
      const both = [a, b].map((id) => places.get(id)!).filter((m) => instance.members[m]!.controllers.includes(controller.id));
      if (both.length === 2)
        program.row(
          both.map((m) => one(joins(m, c))),
          '<=',
          1,
        );
    }
  }
  for (const terms of onPin.values()) program.row(terms, '<=', 1);
  for (const { id, pairs } of instance.resources)
    for (const [a, b] of pairs) {
      const names = [a, b].flatMap((item) => users.get(`${id}\n${item}`) ?? []);
      program.row(names.map(one), '<=', 1);
    }
  for (const [i, item] of instance.items.entries())
    for (const [k, { unless }] of item.candidates.entries()) {
      const c = unless === undefined ? undefined : controllers.get(unless);
      if (c === undefined) continue;
      for (const [m] of membersOf(instance, instance.controllers[c]!)) program.row([one(`u${i}_${k}`), one(joins(m, c))], '<=', 1);
    }
  for (const [g, { alternatives }] of (instance.groups ?? []).entries()) {
    const taken = alternatives.map((_, a) => program.binary(`g${g}_${a}`));
    program.row(taken.map(one), '=', 1);
    for (const [i, item] of instance.items.entries())
      for (const [k, { pin }] of item.candidates.entries()) {
        const allowing = alternatives.flatMap((only, a) => (only[item.id]?.includes(pin) === false ? [] : [taken[a]!]));
        if (allowing.length < taken.length) program.row([one(`u${i}_${k}`), ...allowing.map(minus)], '<=', 0);
      }
  }
  return (tier, before) => {
    const kept = before.flatMap((value, at) => {
      const terms = program.objective[TIERS[at]!];
      return terms.length > 0 ? [`${sum(terms)} <= ${value}`] : [];
    });
    const objective = program.objective[tier];
    const rows = [...program.rows, ...kept].map((row, at) => ` r${at}: ${row}`);
    return `Minimize\n obj: ${objective.length > 0 ? sum(objective) : `0 ${program.binaries[0] ?? 'none'}`}\nSubject To\n${rows.join('\n')}\nBinary\n ${program.binaries.join('\n ')}\nEnd\n`;
  };
}
