import { planComponents } from '../src/electrics/reports/components';
import { conductorOf, type Hole } from '../src/outputs/holes/breadboard';
import type { HolePlan } from '../src/outputs/holes/holePlan';
import { boardOf } from '../src/plan/edit';
import { type Plan, terminalKey } from '../src/plan/plan';
import type { Sheets } from '../src/sheets/sheetIndex';

/** Sets of names that grow together. */
class Groups {
  readonly #groups: Set<string>[] = [];

  join(...names: readonly string[]): void {
    const met = this.#groups.filter((group) => names.some((name) => group.has(name)));
    for (const group of met) this.#groups.splice(this.#groups.indexOf(group), 1);
    this.#groups.push(new Set([...met.flatMap((group) => [...group]), ...names]));
  }

  get list(): readonly (readonly string[])[] {
    return this.#groups.map((group) => [...group]);
  }
}

/** The netlist of a hole plan as a tester with two probes finds it: strips and rails conduct, jumpers join them, the board joins its ground pins
 *  and the pins of each rail. Resistors in wires are taken as wires.
 *  @returns the part terminals of each net, sorted */
export function readBackHoles(plan: Plan, sheets: Sheets, holes: HolePlan): readonly string[] {
  const groups = new Groups();
  const at = (hole: Hole) => `hole ${conductorOf(holes.breadboard, hole)}`;
  const board = boardOf(plan, sheets)!;
  const boardNode = (id: string) => {
    const pin = board.pins.get(id)!;
    return pin.kind === 'ground' ? 'ground' : pin.kind === 'supply' ? `rail ${pin.rail}` : `pin ${pin.sameAs ?? id}`;
  };
  const parts = new Set(plan.placements.map(({ id }) => id));
  const endNode = (item: string, leg: string) => (item === 'board' ? boardNode(leg) : `terminal ${terminalKey(item, leg)}`);
  for (const item of holes.items)
    for (const { id, hole } of item.legs) if (item.id === 'board' || parts.has(item.id)) groups.join(at(hole), endNode(item.id, id));
  for (const { from, to } of holes.jumpers) groups.join(at(from), at(to));
  for (const { end, to } of holes.leads)
    groups.join(endNode(end.module, end.terminal), to.at === 'hole' ? at(to.hole) : endNode(to.end.module, to.end.terminal));
  const series = new Set(planComponents(plan, sheets).flatMap(({ id, role }) => (role === 'series' ? [id] : [])));
  for (const {
    id,
    holes: [from, to],
  } of holes.bridges)
    if (series.has(id)) groups.join(at(from), at(to));
  for (const item of holes.items) if (series.has(item.id)) groups.join(...item.legs.map(({ hole }) => at(hole)));
  return groups.list
    .map((names) =>
      names
        .flatMap((name) => (name.startsWith('terminal ') ? [name.slice('terminal '.length)] : []))
        .toSorted()
        .join(' '),
    )
    .filter((keys) => keys !== '')
    .toSorted();
}
