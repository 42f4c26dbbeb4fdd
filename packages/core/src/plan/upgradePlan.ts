import { noteKey } from '../sheets/benchNote';
import { todaysFact } from '../sheets/upgradeSheet';
import type { Edit } from './edit';
import { type Plan, PLAN_DEFAULTS } from './plan';

type Fields = { readonly [field: string]: unknown };

const isFields = (value: unknown): value is Fields => typeof value === 'object' && value !== null && !Array.isArray(value);

/** The values on hand had another name. */
function withValuesOnHand(document: unknown): unknown {
  if (!isFields(document)) return document;
  const { drawer, ...rest } = document;
  return drawer === undefined || rest['valuesOnHand'] !== undefined ? document : { ...rest, valuesOnHand: drawer };
}

/** A bench note is kept under the path of its fact, whose field may have had another name. */
function withTodaysFacts(document: unknown): unknown {
  const notes = isFields(document) ? document['benchNotes'] : undefined;
  if (!isFields(document) || !isFields(notes)) return document;
  const today = Object.entries(notes).map(([key, note]) => {
    const colon = key.indexOf(':');
    const fact = todaysFact(key.slice(colon + 1));
    return [noteKey(key.slice(0, colon), fact), isFields(note) && note['fact'] !== undefined ? { ...note, fact } : note] as const;
  });
  return today.every(([key]) => Object.hasOwn(notes, key)) ? document : { ...document, benchNotes: Object.fromEntries(today) };
}

/** A plan document with today's names of fields and facts. Other documents are returned as they are.
 *  @param document of any shape; it is not changed */
export const renamedFields = (document: unknown): unknown => withTodaysFacts(withValuesOnHand(document));

/** A stored plan in today's shape: fields have today's names, and those that came later than the plan get their empty value. */
export function upgradePlan(stored: Plan | Omit<Plan, keyof typeof PLAN_DEFAULTS>): Plan {
  return { ...PLAN_DEFAULTS, ...(renamedFields(stored) as Plan) };
}

/** An edit with today's names; one that has them is returned as it is. */
function upgradeEdit(edit: unknown): unknown {
  if (!isFields(edit)) return edit;
  if (edit['kind'] === 'drawer') return { ...(withValuesOnHand(edit) as Fields), kind: 'values-on-hand' };
  const { kind, fact } = edit;
  return kind === 'bench-note' && typeof fact === 'string' && todaysFact(fact) !== fact ? { ...edit, fact: todaysFact(fact) } : edit;
}

/** Edits as an earlier version wrote them, into a log, a browser's storage or a request, with today's names. Others are returned as they
 *  are.
 *  @param edits of any shape; they are not changed */
export function upgradeEdits<T = readonly Edit[]>(edits: T): T {
  if (!Array.isArray(edits)) return edits;
  const today = edits.map(upgradeEdit);
  return today.every((edit, at) => edit === edits[at]) ? edits : (today as T);
}
