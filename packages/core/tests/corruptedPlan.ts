import fc from 'fast-check';
import { assignPins } from '../src/assign/assignPins';
import { newPlan, type Plan, type WireEnd } from '../src/plan/plan';
import type { Sheets } from '../src/sheets/sheetIndex';
import { add, edited } from './makePlan';

/** A new plan of these parts (p0, p1, …), settled as far as so many nodes lead. */
export function settledPlan(sheets: Sheets, boardId: string, parts: readonly string[], nodes: number): Plan {
  const board = sheets.boards.get(boardId)!.sheet;
  const bare = newPlan('plan-1', 'Test', { id: board.id, version: board.version });
  return assignPins(edited(bare, sheets, ...parts.map((id, at) => add(`p${at}`, id))), sheets, { nodes })!.plan;
}

/** A plan that was settled, and then spoilt: wires at any pin, at other parts or gone, resistors and settings of any size. */
export function corruptedPlan(sheets: Sheets): fc.Arbitrary<Plan> {
  const partIds = [...sheets.parts.keys()];
  const supplies = partIds.filter((id) => sheets.parts.get(id)!.sheet.supplies);
  return fc
    .record({
      boardId: fc.constantFrom(...sheets.boards.keys()),
      // Supplies are few, and yet must be drawn often: each gives a rail.
      parts: fc.array(fc.oneof({ weight: 6, arbitrary: fc.constantFrom(...partIds) }, fc.constantFrom(...supplies)), {
        minLength: 2,
        maxLength: 8,
      }),
      dice: fc.infiniteStream(fc.nat(0xffff)),
    })
    .map(({ boardId, parts, dice }) => {
      const roll = (sides: number): number => (dice.next().value as number) % sides;
      const pick = <T>(list: readonly T[]): T => list[roll(list.length)]!;
      const board = sheets.boards.get(boardId)!.sheet;
      const plan = settledPlan(sheets, boardId, parts, 500);
      const keys = Object.keys(plan.wires);
      const pins = board.pins.list.flatMap((p) => (p.kind === 'io' && !p.sameAs ? [p.id] : []));
      const wires: { [key: string]: Plan['wires'][string] } = { ...plan.wires };
      for (let n = roll(12); n > 0 && keys.length > 0; n -= 1) {
        const key = pick(keys);
        const [placement, terminal] = pick(keys).split(':') as [string, string];
        const end: WireEnd =
          roll(4) > 0 || key.startsWith(`${placement}:`) ? { to: 'pin', pin: pick(pins) } : { to: 'terminal', placement, terminal };
        if (roll(5) === 0) Reflect.deleteProperty(wires, key);
        else wires[key] = { ...plan.wires[key]!, locked: false, end };
      }
      const given = plan.placements.flatMap((p) =>
        (sheets.parts.get(p.sheet.id)?.sheet.supplies?.list ?? []).map(({ output }) => `${p.id}:${output}`),
      );
      for (const key of given.length > 0 ? keys : [])
        if (plan.wires[key]?.end.to === 'rail' && roll(2) === 0 && wires[key])
          wires[key] = { ...wires[key], end: { to: 'rail', rail: pick(given) } };
      const some = <T>(map: { readonly [key: string]: T }) => Object.fromEntries(Object.entries(map).filter(() => roll(3) > 0));
      const atKeys = <T>(values: readonly T[]) =>
        Object.fromEntries(keys.flatMap((key) => (roll(8) === 0 ? [[key, pick(values)] as const] : [])));
      const atParts = <T>(values: readonly T[], of: (id: string) => boolean = () => true) =>
        Object.fromEntries(plan.placements.flatMap((p) => (of(p.sheet.id) && roll(3) === 0 ? [[p.id, pick(values)] as const] : [])));
      return {
        ...plan,
        wires,
        placements: plan.placements.map((p) => ({ ...p, straps: some(p.straps) })),
        series: { ...some(plan.series), ...atKeys([10, 330, 4700]) },
        pulls: atKeys([
          { ohms: 330, to: 'supply' },
          { ohms: 10_000, to: 'ground' },
        ] as const),
        drivers: atKeys([
          { kind: 'npn', ohms: 1000 },
          { kind: 'pnp', ohms: 390 },
        ] as const),
        busSettings: Object.fromEntries(
          board.controllers.list.flatMap((c) =>
            roll(3) === 0 ? [[c.id, { hz: pick([1e5, 1e6]), wireCm: pick([10, 3000]), addedOhms: pick([470, 4700]) }] as const] : [],
          ),
        ),
        rates: atParts([1, 100, 5000]),
        readouts: atParts(
          [{ text: 'HELLO, WORLD: HELLO äöü' }, { picture: 'whole' as const }],
          (id) => sheets.parts.get(id)!.sheet.readout !== undefined,
        ),
        radio: roll(2) === 0,
      };
    });
}
