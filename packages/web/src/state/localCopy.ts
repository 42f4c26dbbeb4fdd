import { createStore, del, get, promisifyRequest, set, type UseStore } from 'idb-keyval';
import type { Plan } from '@roof-chart/core/plan/plan';
import { upgradeEdits, upgradePlan } from '@roof-chart/core/plan/upgradePlan';
import type { Batch, Step } from './documentSlice';
import { isBatch, keepBatches } from './waitingBatches';

/** The plan as the server last gave it, kept so that it opens without the server. */
export interface LocalGround {
  readonly version: 2;
  readonly plan: Plan;
  readonly revision: number;
  readonly epoch: string;
}

/** Undo and redo of one tab. */
export interface LocalSteps {
  readonly at: number;
  readonly past: readonly Step[];
  readonly future: readonly Step[];
}

/** Undo steps kept over a reload. */
const KEPT_STEPS = 200;
/** Tabs of a plan whose undo is kept. */
const KEPT_TABS = 5;

export type GroundRead =
  { readonly kind: 'none' } | { readonly kind: 'ground'; readonly ground: LocalGround } | { readonly kind: 'damaged' };

const opened = new Map<string, UseStore>();
function storeOf(name: string): UseStore {
  const there = opened.get(name) ?? createStore(`roof-chart-${name}`, name);
  opened.set(name, there);
  return there;
}
const grounds = () => storeOf('plans');
const steps = () => storeOf('undo');
const damaged = () => storeOf('damaged');

const isStep = (value: unknown): boolean => {
  const { label, edits, inverse } = (value ?? {}) as Partial<Step>;
  return typeof label === 'string' && Array.isArray(edits) && Array.isArray(inverse);
};

const isPlan = (plan: unknown, planId: string): plan is Plan => {
  const { format, id, placements } = (plan ?? {}) as Partial<Plan> & { format?: string };
  return format === 'roof-chart-plan' && id === planId && Array.isArray(placements);
};

/** Whether a value read back from the browser's storage is the ground of this plan. */
export function isLocalGround(value: unknown, planId: string): value is LocalGround {
  const { version, revision, epoch, plan } = (value ?? {}) as Partial<LocalGround>;
  return version === 2 && Number.isInteger(revision) && typeof epoch === 'string' && isPlan(plan, planId);
}

/** The ground of a plan. One that cannot be read is set aside, not thrown away. */
export async function readGround(planId: string): Promise<GroundRead> {
  try {
    await takeOverFirstShape(planId);
    const value: unknown = await get(planId, grounds());
    if (value === undefined) return { kind: 'none' };
    if (isLocalGround(value, planId)) return { kind: 'ground', ground: { ...value, plan: upgradePlan(value.plan) } };
    await set(`${planId}/${crypto.randomUUID()}`, value, damaged());
    await del(planId, grounds());
    return { kind: 'damaged' };
  } catch {
    // No storage at all (a private window): the plan is then only in this tab until the server has it.
    return { kind: 'none' };
  }
}

/** Keeps what the server gave; an older revision never replaces a newer one of the same life of the database.
 *  @throws DOMException when the browser's storage is full or refused */
export function writeGround(ground: LocalGround): Promise<void> {
  const { id } = ground.plan;
  return grounds()('readwrite', async (objects) => {
    const there = await promisifyRequest<unknown>(objects.get(id));
    if (isLocalGround(there, id) && there.epoch === ground.epoch && there.revision > ground.revision) return;
    objects.put(ground, id);
    await promisifyRequest(objects.transaction);
  });
}

const stepsRange = (planId: string): IDBKeyRange => IDBKeyRange.bound(`${planId}/`, `${planId}0`, false, true);

export function isLocalSteps(value: unknown): value is LocalSteps {
  const { at, past, future } = (value ?? {}) as Partial<LocalSteps>;
  return typeof at === 'number' && Array.isArray(past) && Array.isArray(future) && [...past, ...future].every(isStep);
}

/** Steps that an earlier version kept, with today's names of edits. */
function withTodaysNames({ past, future }: LocalSteps): Pick<LocalSteps, 'past' | 'future'> {
  const today = (step: Step): Step => ({ ...step, edits: upgradeEdits(step.edits), inverse: upgradeEdits(step.inverse) });
  return { past: past.map(today), future: future.map(today) };
}

/** Undo of this tab; in a fresh tab, that of the tab that was last at work. */
export async function readSteps(planId: string, tab: string): Promise<Pick<LocalSteps, 'past' | 'future'>> {
  try {
    const own: unknown = await get(`${planId}/${tab}`, steps());
    if (isLocalSteps(own)) return withTodaysNames(own);
    const all = await steps()('readonly', (objects) => promisifyRequest<unknown[]>(objects.getAll(stepsRange(planId))));
    const last = all.filter(isLocalSteps).sort((a, b) => b.at - a.at)[0];
    return last ? withTodaysNames(last) : { past: [], future: [] };
  } catch {
    return { past: [], future: [] };
  }
}

/** @throws DOMException when the browser's storage is full or refused */
export function writeSteps(planId: string, tab: string, { past, future }: Pick<LocalSteps, 'past' | 'future'>): Promise<void> {
  const record: LocalSteps = { at: Date.now(), past: past.slice(-KEPT_STEPS), future: future.slice(-KEPT_STEPS) };
  return steps()('readwrite', (objects) => {
    objects.put(record, `${planId}/${tab}`);
    return promisifyRequest(objects.transaction);
  });
}

/** Forgets the undo of tabs that were not at work for long. */
export async function pruneSteps(planId: string): Promise<void> {
  await steps()('readwrite', async (objects) => {
    const keys = await promisifyRequest(objects.getAllKeys(stepsRange(planId)));
    const values = await promisifyRequest<unknown[]>(objects.getAll(stepsRange(planId)));
    const byAge = keys
      .map((key, at) => ({ key, at: isLocalSteps(values[at]) ? values[at].at : 0 }))
      .sort((a, b) => b.at - a.at)
      .slice(KEPT_TABS);
    for (const { key } of byAge) objects.delete(key);
  }).catch(() => undefined);
}

interface FirstShape {
  readonly version: 1;
  readonly plan: Plan;
  readonly waiting: readonly Batch[];
  readonly past: readonly Step[];
  readonly future: readonly Step[];
}

/** An earlier version kept everything of a plan in one record: its unsent edits become records of their own. */
async function takeOverFirstShape(planId: string): Promise<void> {
  const key = `plan:${planId}`;
  const value: unknown = await get(key);
  if (value === undefined) return;
  const { version, plan, waiting, past = [], future = [] } = value as Partial<FirstShape>;
  if (version === 1 && isPlan(plan, planId) && Array.isArray(waiting) && waiting.every(isBatch)) {
    await keepBatches(planId, 'earlier', waiting);
    if ([...past, ...future].every(isStep)) await writeSteps(planId, 'earlier', { past, future });
  } else await set(`${planId}/${crypto.randomUUID()}`, value, damaged());
  await del(key);
}
