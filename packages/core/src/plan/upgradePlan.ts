import type { Edit } from './edit';
import { type Plan, PLAN_DEFAULTS } from './plan';

/** A plan document with today's names: the values on hand had another one. Other documents are returned as they are.
 *  @param document of any shape; it is not changed */
export function renamedFields(document: unknown): unknown {
  const { drawer, ...rest } = (document ?? {}) as { readonly drawer?: unknown; readonly valuesOnHand?: unknown };
  return drawer === undefined || rest.valuesOnHand !== undefined ? document : { ...rest, valuesOnHand: drawer };
}

/** A stored plan in today's shape: fields have today's names, and those that came later than the plan get their empty value. */
export function upgradePlan(stored: Plan | Omit<Plan, keyof typeof PLAN_DEFAULTS>): Plan {
  return { ...PLAN_DEFAULTS, ...(renamedFields(stored) as Plan) };
}

/** Edits as an earlier version wrote them, into a log, a browser's storage or a request, with today's names. Others are returned as they
 *  are.
 *  @param edits of any shape; they are not changed */
export function upgradeEdits<T = readonly Edit[]>(edits: T): T {
  if (!Array.isArray(edits) || !edits.some(isOfDrawer)) return edits;
  return edits.map((edit: unknown) => (isOfDrawer(edit) ? { ...(renamedFields(edit) as object), kind: 'values-on-hand' } : edit)) as T;
}

const isOfDrawer = (edit: unknown): edit is object => (edit as { readonly kind?: unknown } | null)?.kind === 'drawer';
