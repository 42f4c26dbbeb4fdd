import { dequal } from 'dequal';
import { atOrThrow, firstOrThrow } from '../../collections/orThrow';
import type { Edit } from '../../plan/edit';
import { type Breadboard, BREADBOARD_ROWS, type HolePlace, type Plan, PLAN_LIMITS } from '../../plan/plan';
import type { Sheets } from '../../sheets/sheetIndex';
import { isSideBySide, rowsOf } from './breadboard';
import { holeInstance, type HoleInstance } from './holeItems';
import { placesThatHold } from './holePlan';
import { placeItems } from './placeItems';
import type { Placement, PlaceProblem } from './placeProblem';
import { problemOf } from './variants';

export interface HolePlacement {
  /** What gives everything its place; what does not fit is left off. */
  readonly edits: readonly Edit[];
  /** How far the nets reach, and at least reach: see `spanOf`. In pitches of 2.54 mm. */
  readonly span: number;
  readonly bound: number;
  readonly proved: boolean;
  /** What does not fit. */
  readonly tooMuch: readonly string[];
  /** A larger breadboard on which it does, of as few boards as possible; undefined if there is none, or it fits. */
  readonly larger: Breadboard | undefined;
}

/** What of a plan may be moved: everything but what the user has put in its place, or only what has none. */
export type Scope = 'all' | 'new';

/** What the user has left off the breadboard; what only did not fit is tried again. */
const isOffByChoice =
  ({ places }: Plan) =>
  (item: string): boolean =>
    places[item]?.side === 'off' && places[item].locked === true;

/** Rows that an item takes, for the choice of what is left out. */
const widthOf = ({ variants }: PlaceProblem['items'][number]): number =>
  Math.max(...firstOrThrow(variants).spans.map(({ strips, body }) => Math.max(strips[1], body[1]) - Math.min(strips[0], body[0])));

/** Placements that are looked at to see whether there is one at all. */
const FITTING = 3000;

interface PlaceOptions {
  readonly scope: Scope;
  /** Most nodes of the search. */
  readonly nodes: number | undefined;
}

interface Found {
  readonly problem: PlaceProblem;
  readonly placement: Placement;
  readonly tooMuch: readonly string[];
}

/** The most that can be placed: if not everything fits, the widest part is left out, then the next. */
function placeMost(plan: Plan, sheets: Sheets, breadboard: Breadboard, { scope, nodes }: PlaceOptions): Found | undefined {
  const tooMuch: string[] = [];
  const isOff = isOffByChoice(plan);
  for (;;) {
    const instance = holeInstance(plan, sheets, (id) => isOff(id) || tooMuch.includes(id));
    if (!instance) return undefined;
    const problem = problemOf(instance, breadboard, keptBy(plan, instance, breadboard, scope));
    // Whether there is a placement at all is found faster than the best one.
    const fitting = placeItems(problem, FITTING);
    if (fitting) return { problem, placement: (fitting.proved ? undefined : placeItems(problem, nodes)) ?? fitting, tooMuch };
    // Parts before components, strips where wires meet at the end: those are small, and much depends on them.
    const rank = ({ id }: { readonly id: string }) => (id.startsWith('net:') ? 2 : id.includes(':') ? 1 : 0);
    const last = problem.items.filter(({ at }) => !at).toSorted((a, b) => rank(a) - rank(b) || widthOf(b) - widthOf(a))[0];
    if (!last) return undefined;
    tooMuch.push(last.id);
  }
}

function keptBy(plan: Plan, instance: HoleInstance, breadboard: Breadboard, scope: Scope): (item: string) => HolePlace | undefined {
  const held = placesThatHold(instance, breadboard, plan.places);
  return (id) => (scope === 'new' || id === 'board' || held.get(id)?.locked ? held.get(id) : undefined);
}

/** The same breadboard of so many boards: only two can lie side by side. */
function ofBoards({ arrangement, ...breadboard }: Breadboard, boards: number): Breadboard {
  return { ...breadboard, boards, ...(arrangement && boards === 2 ? { arrangement } : {}) };
}

/** The breadboard on which everything fits: of as few boards as possible. */
function largerOne(plan: Plan, sheets: Sheets, breadboard: Breadboard): Breadboard | undefined {
  const choices = Array.from({ length: PLAN_LIMITS.breadboards }, (_, at) =>
    BREADBOARD_ROWS.map((rows): Breadboard => ({ ...ofBoards(breadboard, at + 1), rows })),
  )
    .flat()
    .filter((one) => rowsOf(one) > rowsOf(breadboard))
    .toSorted((a, b) => a.boards - b.boards || a.rows - b.rows);
  return choices.find((one) => {
    const instance = holeInstance({ ...plan, breadboard: one }, sheets, isOffByChoice(plan));
    // On boards end to end, what lies over two would not be on the breadboard at all.
    const isLess = instance?.off.some(({ why }) => why === 'needs two boards') && isSideBySide(breadboard);
    return instance && !isLess && placeItems(problemOf(instance, one, keptBy(plan, instance, one, 'all')), FITTING) !== undefined;
  });
}

/** What the user has put where it has no room: on the board, under another locked part, or beyond the end. Until it is unlocked or moved, the
 *  others cannot be placed around it. */
export function lockedWithoutRoom(plan: Plan, sheets: Sheets): readonly string[] {
  const instance = plan.breadboard ? holeInstance(plan, sheets, isOffByChoice(plan)) : undefined;
  if (!plan.breadboard || !instance) return [];
  const held = placesThatHold(instance, plan.breadboard, plan.places);
  return instance.items.flatMap(({ id }) => (plan.places[id]?.locked && !held.has(id) ? [id] : []));
}

/** Finds a place for everything that a plan has for its breadboard, with the shortest wires. What the user has put in its place stays there.
 *  @param scope whether what has a place already may be moved
 *  @param nodes placements that are looked at, at most
 *  @returns undefined if the plan has no breadboard, its board's sheet is missing, or something locked has no room: see `lockedWithoutRoom` */
export function placeHoles(plan: Plan, sheets: Sheets, scope: Scope = 'all', nodes?: number): HolePlacement | undefined {
  const { breadboard } = plan;
  const found =
    breadboard && lockedWithoutRoom(plan, sheets).length === 0 ? placeMost(plan, sheets, breadboard, { scope, nodes }) : undefined;
  if (!breadboard || !found) return undefined;
  const { problem, placement, tooMuch } = found;
  const places = new Map<string, HolePlace>(tooMuch.map((id) => [id, { side: 'off' }]));
  for (const { item, variant, row } of placement.placed) {
    const { id, variants } = atOrThrow(problem.items, item);
    const { side, rowOffset } = atOrThrow(variants, variant);
    places.set(id, { side, row: row + rowOffset, ...(plan.places[id]?.locked ? { locked: true } : {}) });
  }
  const edits = [...places].flatMap(([item, place]): Edit[] => (dequal(plan.places[item], place) ? [] : [{ kind: 'place', item, place }]));
  const { span, bound, proved } = placement;
  return { edits, span, bound, proved, tooMuch, larger: tooMuch.length > 0 ? largerOne(plan, sheets, breadboard) : undefined };
}
