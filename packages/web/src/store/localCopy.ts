import { get, set } from 'idb-keyval';
import type { Plan } from '@roof-chart/core/plan/plan';
import type { Batch, Step } from './documentSlice';

/** What the browser keeps of a plan, so that a closed tab or an absent server loses nothing. */
export interface LocalCopy {
  readonly version: 1;
  /** The server's revision under the waiting batches, and the plan with them applied. */
  readonly revision: number;
  readonly plan: Plan;
  readonly waiting: readonly Batch[];
  readonly past: readonly Step[];
  readonly future: readonly Step[];
}

/** Undo steps kept over a reload. */
export const KEPT_STEPS = 200;

export type LocalRead = { readonly kind: 'none' } | { readonly kind: 'copy'; readonly copy: LocalCopy } | { readonly kind: 'damaged' };

const keyOf = (planId: string): string => `plan:${planId}`;

const isBatch = (value: unknown): boolean => {
  const { id, edits } = (value ?? {}) as Partial<Batch>;
  return typeof id === 'string' && Array.isArray(edits);
};
const isStep = (value: unknown): boolean => {
  const { label, edits, inverse } = (value ?? {}) as Partial<Step>;
  return typeof label === 'string' && Array.isArray(edits) && Array.isArray(inverse);
};

/** Whether a value read back from the browser's storage is a copy of this plan. */
export function isLocalCopy(value: unknown, planId: string): value is LocalCopy {
  const { version, revision, plan, waiting, past, future } = (value ?? {}) as Partial<LocalCopy>;
  return (
    version === 1 &&
    Number.isInteger(revision) &&
    plan?.format === 'roof-chart-plan' &&
    plan.id === planId &&
    Array.isArray(plan.placements) &&
    [waiting, past, future].every(Array.isArray) &&
    waiting!.every(isBatch) &&
    [...past!, ...future!].every(isStep)
  );
}

/** The copy of a plan. One that cannot be read is set aside under another key, not thrown away. */
export async function readLocal(planId: string): Promise<LocalRead> {
  try {
    const value: unknown = await get(keyOf(planId));
    if (value === undefined) return { kind: 'none' };
    if (isLocalCopy(value, planId)) return { kind: 'copy', copy: value };
    await set(`damaged:${planId}:${crypto.randomUUID()}`, value);
    return { kind: 'damaged' };
  } catch {
    // No storage at all (a private window): the plan is then only in this tab until the server has it.
    return { kind: 'none' };
  }
}

/** @throws DOMException when the browser's storage is full or refused */
export function writeLocal(copy: LocalCopy): Promise<void> {
  return set(keyOf(copy.plan.id), { ...copy, past: copy.past.slice(-KEPT_STEPS), future: copy.future.slice(-KEPT_STEPS) });
}
