import type { Choice, Costs, Instance } from '@roof-chart/core/assign/model/instance';

/** What a choice costs, counted from the rules anew; throws where it breaks one.
 *  @throws Error naming the rule */
export function checkChoice(instance: Instance, choice: Choice): Costs {
  const costs = { unwired: 0, moved: 0, caution: 0, unusual: 0, waste: 0 };
  const add = (more: Partial<Costs>) => {
    for (const tier of Object.keys(costs) as (keyof Costs)[]) costs[tier] += more[tier] ?? 0;
  };
  const taken = new Map<string, string>();
  const take = (pin: string, by: string) => {
    if (taken.has(pin)) throw new Error(`${pin} carries ${taken.get(pin)!} and ${by}`);
    taken.set(pin, by);
  };
  const using = new Map<string, Set<string>>();
  const busy = new Set(Object.values(choice.members).map((m) => m.controller));
  for (const item of instance.items) {
    const pin = choice.items[item.id];
    if (pin === undefined) {
      add(item.leave);
      continue;
    }
    const candidate = item.candidates.find((c) => c.pin === pin);
    if (!candidate) throw new Error(`${item.id} at ${pin}, which is no candidate`);
    if (candidate.unless && busy.has(candidate.unless)) throw new Error(`${item.id} at ${pin} while ${candidate.unless} is in use`);
    for (const resource of candidate.uses ?? []) using.set(resource, (using.get(resource) ?? new Set()).add(item.id));
    take(pin, item.id);
    add({ moved: candidate.moved, caution: candidate.caution, unusual: candidate.unusual, waste: candidate.waste });
  }
  for (const { id, alternatives } of instance.groups ?? []) {
    const holds = alternatives.some((only) =>
      Object.entries(only).every(([item, pins]) => choice.items[item] === undefined || pins.includes(choice.items[item])),
    );
    if (!holds) throw new Error(`no alternative of ${id} holds`);
  }
  for (const { id, pairs } of instance.resources)
    for (const [a, b] of pairs) if (using.get(id)?.has(a) && using.get(id)?.has(b)) throw new Error(`${a} and ${b} share ${id}`);
  for (const controller of instance.controllers) {
    const own = instance.members.filter((m) => choice.members[m.id]?.controller === controller.id);
    const lines = [...new Set(own.flatMap((m) => m.lines))];
    const pins = choice.lines[controller.id] ?? {};
    for (const line of lines) {
      const at = controller.lines[line]?.find((p) => p.pin === pins[line]);
      if (!at) throw new Error(`${controller.id}.${line} has no legal pin`);
      take(at.pin, `${controller.id}.${line}`);
      add({ caution: at.caution, unusual: at.unusual, waste: at.waste });
    }
    if (lines.length > 0 && controller.sets && !controller.sets.some((set) => lines.every((line) => set[line] === pins[line])))
      throw new Error(`${controller.id} on no listed set`);
    const answering = new Map<number, string>();
    for (const member of own) {
      if (!member.controllers.includes(controller.id)) throw new Error(`${member.id} may not join ${controller.id}`);
      for (const [line, pin] of Object.entries(member.fixed)) if (pins[line] !== pin) throw new Error(`${member.id} ${line} is fixed`);
      for (const [line, not] of Object.entries(member.avoid ?? {}))
        if (not.includes(pins[line]!)) throw new Error(`${member.id} ${line} is to avoid ${pins[line]}`);
      for (const line of member.lines)
        for (const [pin, count] of Object.entries(member.here[line] ?? {})) if (pins[line] !== pin) add({ moved: count });
      const { address } = choice.members[member.id]!;
      if (member.addresses.length > 0 && !address) throw new Error(`${member.id} has no address`);
      add({ moved: address?.moved ?? 0 });
      for (const one of address?.addresses ?? []) {
        if (answering.has(one)) throw new Error(`${answering.get(one)!} and ${member.id} answer on ${one}`);
        answering.set(one, member.id);
      }
    }
    for (const member of own)
      for (const one of member.beyond ?? [])
        if (answering.has(one)) throw new Error(`${answering.get(one)!} answers on ${one}, as does what is beyond ${member.id}`);
    for (const [a, b] of instance.clashes)
      if ([a, b].every((id) => own.some((m) => m.id === id))) throw new Error(`${a} and ${b} on one bus`);
  }
  for (const member of instance.members) if (!choice.members[member.id]) add(member.leave);
  return costs;
}
