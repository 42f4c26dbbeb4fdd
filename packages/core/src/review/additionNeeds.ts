import { findOrThrow, firstOrThrow, orThrow } from '../collections/orThrow';
import { isAboutFacts, type Finding } from '../checks/engine/check';
import { isLackOfHelper } from '../checks/engine/registry';
import { type Component, planComponents } from '../electrics/reports/components';
import { applyEdits } from '../plan/applyEdits';
import { type Edit, partOf } from '../plan/edit';
import { type Plan, sameEnd, splitKey } from '../plan/plan';
import type { PartSheet } from '../sheets/partSheet';
import { PIN_ROLES } from '../sheets/roles';
import { softwareKind } from '../sheets/softwareBuses';
import { notedSheets } from '../sheets/notedSheets';
import { partSheetOrThrow, type Sheets } from '../sheets/sheetIndex';
import { type Addition, additionOf, type AdditionVerdict, additionVerdict } from './addition';
import { type Preview, previewOf } from './previewEdits';
import { planFindingsOf } from './review';

/** What a part needs beside itself to work in a plan: added with it in one step. */
export interface AdditionNeeds {
  /** All of it: the part, its wires, and what it needs. */
  readonly edits: readonly Edit[];
  readonly plan: Plan;
  /** The helpers that come with it, such as `buffer 74AHCT125`, and those of the plan that it uses, in order. */
  readonly adds: readonly string[];
  readonly uses: readonly string[];
  /** What the program makes for it instead of the chip, such as `software SPI`. */
  readonly software: readonly string[];
  /** Components that come with it beyond those of the plain addition, by kind. */
  readonly components: { readonly [K in Component['kind']]?: number };
  /** Errors and warnings that are left. */
  readonly left: readonly Finding[];
}

/** An addition with what the part needs. */
export type CompleteAddition = Addition & { readonly needs?: AdditionNeeds };

/** What an addition comes to: with what the part needs it fits. */
export const completeVerdict = (addition: CompleteAddition): AdditionVerdict =>
  addition.needs?.left.length === 0 ? 'with' : additionVerdict(addition);

/** As `additionOf`, with what the part needs beside itself. */
export function completeAddition(plan: Plan, sheets: Sheets, part: PartSheet): CompleteAddition | undefined {
  const addition = additionOf(plan, sheets, part);
  const needs = addition && additionNeeds(plan, sheets, addition);
  return needs ? { ...addition, needs } : addition;
}

/** How many components of each kind came. */
function cameOf(before: readonly Component[], after: readonly Component[]): AdditionNeeds['components'] {
  const had = new Set(before.map(({ id }) => id));
  const counts: { [K in Component['kind']]?: number } = {};
  for (const { id, kind } of after) if (!had.has(id)) counts[kind] = (counts[kind] ?? 0) + 1;
  return counts;
}

/** More steps than any part needs; a plan that changes on is given up. */
const STEPS = 8;

const isGrave = (finding: Finding): boolean => finding.level !== 'hint' && !isAboutFacts(finding);

/** Whether edits only add: parts, components, and wires of new parts or of terminals without one. What is there keeps its place.
 *  @param own the parts that came */
function onlyAdds(plan: Plan, after: Plan, moved: Preview['wires'], own: ReadonlySet<string>): boolean {
  const stays = plan.placements.every((p) =>
    after.placements.some((q) => q.id === p.id && q.sheet.id === p.sheet.id && q.pullUpsCut === p.pullUpsCut),
  );
  return (
    stays &&
    plan.board.id === after.board.id &&
    moved.every(({ terminal, from }) => from === undefined || own.has(splitKey(terminal).placement))
  );
}

/** One step: the plan after the first fix that removes an error or warning of the addition and brings none, with its edits. */
function step(base: Plan, now: Plan, sheets: Sheets): { readonly plan: Plan; readonly edits: readonly Edit[] } | undefined {
  const had = new Set(planFindingsOf(base, sheets).map((f) => f.id));
  // Supplies first: levels and pull-ups follow from them.
  const before = planFindingsOf(now, sheets)
    .filter((f) => isGrave(f) && !had.has(f.id))
    .toSorted((a, b) => Number(b.code === 'terminal-unwired') - Number(a.code === 'terminal-unwired'));
  for (const finding of before) {
    for (const { edits } of finding.remedies) {
      const result = applyEdits(now, edits, sheets);
      if (!result.ok) continue;
      const came = new Set(result.plan.placements.filter((p) => !base.placements.some((q) => q.id === p.id)).map((p) => p.id));
      const { wires, added, gone } = previewOf(now, result.plan, sheets, planFindingsOf);
      // What was not fed at all may show only now what its signals need.
      const shows = (f: Finding) => finding.code === 'terminal-unwired' && isLackOfHelper(f);
      const isBetter = gone.some((f) => f.id === finding.id) && !added.some((f) => isGrave(f) && !had.has(f.id) && !shows(f));
      if (isBetter && onlyAdds(now, result.plan, wires, came)) return { plan: result.plan, edits };
    }
  }
  return undefined;
}

/** What the program makes in a plan and not in the one before. */
function softwareOf(before: Plan, after: Plan): readonly string[] {
  const buses = after.softwareBuses.filter((id) => !before.softwareBuses.includes(id));
  const hasPwm = Object.keys(after.softwarePwm).some((key) => !before.softwarePwm[key]);
  return [
    ...buses.map((id) => `software ${orThrow(softwareKind(id), 'kind of the bus').toUpperCase()}`),
    ...(hasPwm ? ['software PWM'] : []),
  ];
}

/** What an addition needs, found by following the fixes of its own findings as long as each removes one, adds none, and leaves what is
 *  there in its place. Undefined where it needs nothing, or nothing helps.
 *  @param plan the plan without the part */
export function additionNeeds(plan: Plan, kept: Sheets, addition: Addition): AdditionNeeds | undefined {
  if (addition.moved.length > 0 || !addition.added.some(isGrave)) return undefined;
  const sheets = notedSheets(kept, plan.benchNotes);
  // What no rail suits may have a supply of its own, an analog output a converter, a bus or PWM may be made by the program; for any other
  // terminal nothing is left.
  const isHelped = (key: string) => {
    const role = partOf(addition.plan, splitKey(key).placement, sheets)?.terminals.get(splitKey(key).terminal)?.role;
    return (
      role !== undefined &&
      (role === 'supply.vcc' || role === 'adc.in' || PIN_ROLES[role]?.line !== undefined || PIN_ROLES[role]?.pwm === true)
    );
  };
  if (!addition.open.every(isHelped)) return undefined;
  const edits: Edit[] = [];
  let now = addition.plan;
  for (let n = 0; n < STEPS; n += 1) {
    const next = step(plan, now, sheets);
    if (!next) break;
    now = next.plan;
    edits.push(...next.edits);
  }
  if (edits.length === 0) return undefined;
  const had = new Set(planFindingsOf(plan, sheets).map((f) => f.id));
  const left = planFindingsOf(now, sheets).filter((f) => isGrave(f) && !had.has(f.id));
  // What shows as many troubles as it removes is no help.
  if (left.length >= addition.added.filter(isGrave).length) return undefined;
  const helper = (id: string) => {
    const { short, chip } = partSheetOrThrow(sheets, findOrThrow(now.placements, (p) => p.id === id).sheet).sheet;
    // An abbreviation keeps its capitals.
    const name = /^[A-Z][a-z]/.test(short) ? `${firstOrThrow(short).toLowerCase()}${short.slice(1)}` : short;
    return `${name} ${chip}`;
  };
  const came = now.placements.filter((p) => !addition.plan.placements.some((q) => q.id === p.id));
  const used = Object.entries(now.wires).flatMap(([key, { end }]) =>
    end.to === 'terminal' && !sameEnd(end, addition.plan.wires[key]?.end) && plan.placements.some((p) => p.id === end.placement)
      ? [end.placement]
      : [],
  );
  return {
    edits: [...addition.edits, ...edits],
    plan: now,
    adds: came.map(({ id }) => helper(id)),
    uses: [...new Set(used)].map(helper),
    software: softwareOf(addition.plan, now),
    components: cameOf(planComponents(addition.plan, sheets), planComponents(now, sheets)),
    left,
  };
}
