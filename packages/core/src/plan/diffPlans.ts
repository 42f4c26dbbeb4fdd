import { dequal } from 'dequal';
import { getOrThrow } from '../collections/orThrow';
import type { Edit } from './edit';
import { segmentPlacement } from './edits/busSettings';
import { withoutSoftwareBus } from './edits/softwareBus';
import { solderedIn } from './soldered';
import { type Placement, type Plan, sameEnd, splitKey } from './plan';
import { mapEdits, mapEntries, mapsKept, NO_MAPS } from './planMaps';

const keysOf = (a: object, b: object): readonly string[] => [...new Set([...Object.keys(a), ...Object.keys(b)])];

function samePart(a: Placement, b: Placement): boolean {
  return a.sheet.id === b.sheet.id && a.sheet.version === b.sheet.version && a.onBoard === b.onBoard;
}

/** Parts that go, come (or are another part under the same id), change their place, name or jumpers. */
function placementEdits(from: Plan, to: Plan): Edit[] {
  const target = new Map(to.placements.map((p) => [p.id, p]));
  const gone = from.placements.filter((p) => !target.has(p.id) || !samePart(p, getOrThrow(target, p.id)));
  const order = from.placements.filter((p) => !gone.includes(p)).map((p) => p.id);
  const edits: Edit[] = gone.map((p) => ({ kind: 'remove-placement', placement: p.id }));
  for (const [at, placement] of to.placements.entries()) {
    const here = order.indexOf(placement.id);
    if (here < 0) edits.push({ kind: 'add-placement', placement, at });
    else if (here !== at) edits.push({ kind: 'move-placement', placement: placement.id, at });
    if (here >= 0) order.splice(here, 1);
    order.splice(at, 0, placement.id);
  }
  return edits;
}

/** Names and jumpers of parts that stay. A jumper that is no longer set returns to its default state. */
function partEdits(from: Plan, to: Plan, defaultState: (part: string, strap: string) => string): Edit[] {
  return to.placements.flatMap((after): Edit[] => {
    const before = from.placements.find((p) => p.id === after.id);
    if (!before || !samePart(before, after)) return [];
    const renamed: Edit[] = before.name === after.name ? [] : [{ kind: 'rename-placement', placement: after.id, name: after.name }];
    const straps = keysOf(before.straps, after.straps).filter((strap) => before.straps[strap] !== after.straps[strap]);
    return [
      ...renamed,
      ...straps.map((strap): Edit => ({
        kind: 'strap',
        placement: after.id,
        strap,
        state: after.straps[strap] ?? defaultState(after.sheet.id, strap),
      })),
      ...(before.pullUpsCut === after.pullUpsCut
        ? []
        : [{ kind: 'cut-pull-ups' as const, placement: after.id, cut: after.pullUpsCut === true }]),
    ];
  });
}

/** Wires that survive the placement edits: those of and to parts that stay the same part. */
function survivors(from: Plan, to: Plan): Plan['wires'] {
  const stays = (id: string) => survives(from, to, id);
  return Object.fromEntries(
    Object.entries(from.wires).filter(
      ([key, { end }]) => stays(splitKey(key).placement) && (end.to !== 'terminal' || stays(end.placement)),
    ),
  );
}

function wireEdits(before: Plan['wires'], after: Plan['wires']): Edit[] {
  return keysOf(before, after).flatMap((key): Edit[] => {
    const [a, b] = [before[key], after[key]];
    const place = splitKey(key);
    const unlock: Edit[] = a?.locked ? [{ kind: 'lock', ...place, locked: false }] : [];
    if (!b) return [...unlock, { kind: 'unwire', ...place }];
    const moved = !sameEnd(a?.end, b.end);
    const wasLocked = moved ? false : a?.locked === true;
    const recoloured: Edit[] = !moved && a?.colour !== b.colour ? [{ kind: 'colour', ...place, colour: b.colour }] : [];
    const relocked: Edit[] = b.locked !== wasLocked ? [{ kind: 'lock', ...place, locked: b.locked }] : [];
    return moved ? [...unlock, { kind: 'wire', ...place, end: b.end, colour: b.colour }, ...relocked] : [...recoloured, ...relocked];
  });
}

/** Whether two plans are on one board, whatever its version, with the same parts soldered to it. */
function sameBoard(a: Plan, b: Plan): boolean {
  const parts = (plan: Plan) => JSON.stringify(plan.placements.filter((p) => p.onBoard).map((p) => [p.id, p.sheet]));
  return a.board.id === b.board.id && parts(a) === parts(b);
}

/** Removes every wire that is not soldered and the parts that are dropped, then changes the board. */
function boardEdits(from: Plan, to: Plan): { readonly edits: readonly Edit[]; readonly then: Plan } {
  const soldered = new Set(from.placements.filter((p) => p.onBoard).map((p) => p.id));
  const own = Object.entries(from.wires).filter(([key]) => !soldered.has(splitKey(key).placement));
  const kept = from.placements.filter((p) => !p.onBoard && survives(from, to, p.id));
  const gone = from.placements.filter((p) => !p.onBoard && !kept.includes(p));
  const brought = solderedIn(to);
  const placements = [...kept];
  for (const { at, placement } of brought) placements.splice(at, 0, placement);
  const ids = new Set(kept.map((p) => p.id));
  return {
    edits: [
      ...mapEntries(from).map((entry) => entry.clear),
      ...Object.keys(from.busSettings).map((segment): Edit => ({ kind: 'bus-settings', segment, settings: null })),
      ...own.flatMap(([key, { locked }]): Edit[] => [
        ...(locked ? [{ kind: 'lock' as const, ...splitKey(key), locked: false }] : []),
        { kind: 'unwire', ...splitKey(key) },
      ]),
      ...gone.map((p): Edit => ({ kind: 'remove-placement', placement: p.id })),
      { kind: 'switch-board', board: to.board, soldered: brought },
    ],
    then: {
      ...from,
      ...NO_MAPS,
      busSettings: {},
      board: to.board,
      placements,
      wires: Object.fromEntries(
        brought.flatMap(({ placement, wires }) => Object.entries(wires).map(([terminal, wire]) => [`${placement.id}:${terminal}`, wire])),
      ),
      ticks: Object.fromEntries(Object.entries(from.ticks).filter(([key]) => ids.has(splitKey(key).placement))),
    },
  };
}

/** The edits that turn one plan into another (ids are not changed).
 *  @param defaultState the sheet's default state of a part's jumper
 *  @example applyEdits(from, diffPlans(from, to, states), sheets).plan // equals `to` */
export function diffPlans(from: Plan, to: Plan, defaultState: (part: string, strap: string) => string): readonly Edit[] {
  if (!sameBoard(from, to)) {
    const { edits, then } = boardEdits(from, to);
    return [...edits, ...diffPlans(then, to, defaultState)];
  }
  const ticks = Object.fromEntries(Object.entries(from.ticks).filter(([key]) => survives(from, to, splitKey(key).placement)));
  return [
    ...(from.board.version === to.board.version ? [] : [{ kind: 'take-sheet', placement: null, version: to.board.version } as const]),
    ...(from.name === to.name ? [] : [{ kind: 'rename-plan', name: to.name } as const]),
    ...placementEdits(from, to),
    ...partEdits(from, to, defaultState),
    ...wireEdits(survivors(from, to), to.wires),
    ...keysOf(ticks, to.ticks)
      .filter((key) => !sameEnd(ticks[key], to.ticks[key]))
      .map((key): Edit => ({ kind: 'tick', ...splitKey(key), end: to.ticks[key] ?? null })),
    ...keysOf(from.accepted, to.accepted)
      .filter((finding) => from.accepted[finding] !== to.accepted[finding])
      .map((finding): Edit => ({ kind: 'accept', finding, reason: to.accepted[finding] ?? null })),
    ...noteEdits(from, to),
    ...settingEdits(from, to),
  ];
}

/** Settings of parts and buses after the previous edits, compared with the target. */
function settingEdits(before: Plan, to: Plan): readonly Edit[] {
  const gone = before.softwareBuses.filter((bus) => !to.softwareBuses.includes(bus));
  const from = gone.reduce(withoutSoftwareBus, before);
  // Settings of a removed part are removed with it; those of a controller remain.
  const isPart = (segment: string) => from.placements.some((p) => p.id === segmentPlacement(segment));
  const busSettings = Object.fromEntries(
    Object.entries(from.busSettings).filter(([segment]) => !isPart(segment) || survives(from, to, segmentPlacement(segment))),
  );
  return [
    ...gone.map((bus): Edit => ({ kind: 'software-bus', bus, on: false })),
    ...to.softwareBuses.filter((bus) => !from.softwareBuses.includes(bus)).map((bus): Edit => ({ kind: 'software-bus', bus, on: true })),
    ...mapEdits(
      // What belongs to the board or to a bus stays when parts go.
      mapsKept(from, (owner) => !from.placements.some(({ id }) => id === owner) || survives(from, to, owner)),
      to,
    ),
    ...keysOf(busSettings, to.busSettings)
      .filter((id) => !dequal(busSettings[id], to.busSettings[id]))
      .map((segment): Edit => ({ kind: 'bus-settings', segment, settings: to.busSettings[segment] ?? null })),
    ...keysOf(from.steps, to.steps)
      .filter((id) => from.steps[id] !== to.steps[id])
      .map((id): Edit => ({ kind: 'step', step: id, done: to.steps[id] ?? null })),
    ...(dequal(from.built, to.built) ? [] : [{ kind: 'built' as const, built: to.built }]),
    ...(dequal(from.breadboard, to.breadboard) ? [] : [{ kind: 'breadboard' as const, breadboard: to.breadboard }]),
    ...(dequal(from.valuesOnHand, to.valuesOnHand) ? [] : [{ kind: 'values-on-hand' as const, valuesOnHand: to.valuesOnHand }]),
    ...(from.radio === to.radio ? [] : [{ kind: 'radio' as const, on: to.radio }]),
  ];
}

/** Bench notes that come, go or change. Last: a note must be about a sheet that the plan then uses. */
function noteEdits(from: Plan, to: Plan): readonly Edit[] {
  return keysOf(from.benchNotes, to.benchNotes).flatMap((key): Edit[] => {
    const [before, after] = [from.benchNotes[key], to.benchNotes[key]];
    const either = after ?? before;
    if (!either || dequal(before, after)) return [];
    const { sheet, fact, ...note } = either;
    return [{ kind: 'bench-note', sheet, fact, note: after ? note : null }];
  });
}

function survives(from: Plan, to: Plan, id: string): boolean {
  const [a, b] = [from.placements.find((p) => p.id === id), to.placements.find((p) => p.id === id)];
  return a !== undefined && b !== undefined && samePart(a, b);
}
