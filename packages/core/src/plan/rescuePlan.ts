import { firstOrThrow } from '../collections/orThrow';
import { unsafePlace } from '../sheets/unsafePlace';
import { type PlanFile, readPlanFile } from './planFile';

/** Something of a plan file that could not be read: where it stood, why not, and what it was. */
export interface Leftover {
  readonly path: string;
  readonly fault: string;
  readonly value: unknown;
}

/** A damaged plan file as far as it could be read. */
export type Rescued =
  | { readonly ok: true; readonly file: PlanFile; readonly leftovers: readonly Leftover[] }
  | { readonly ok: false; readonly path: string; readonly fault: string };

/** Maximum number of faults in a readable plan. */
const MOST = 200;
/** Required fields of a plan: a fault there is reported, not left out. */
const NEEDED = new Set(['format', 'id', 'name', 'board', 'placements', 'wires', 'ticks']);

type Tree = { [key: string]: unknown };

/** The value at a path, and the object that holds it. */
function holderOf(
  document: unknown,
  path: readonly (string | number)[],
): { readonly holder: Tree; readonly key: string | number } | undefined {
  let at: unknown = document;
  for (const key of path.slice(0, -1)) at = (at as Tree | undefined)?.[key as string];
  const key = path.at(-1);
  return key !== undefined && typeof at === 'object' && at !== null ? { holder: at as Tree, key } : undefined;
}

/** Removes the entry with a fault: the whole part, wire or note, not a field of it. */
function takeOut(document: Tree, path: string): Leftover | undefined {
  const steps = path.split('.');
  const depth = NEEDED.has(firstOrThrow(steps)) || typeof document[firstOrThrow(steps)] === 'object' ? Math.min(2, steps.length) : 1;
  const at = steps.slice(0, depth);
  if (at.length < 2 && NEEDED.has(firstOrThrow(at))) return undefined;
  const found = holderOf(document, at);
  if (!found) return undefined;
  const { holder, key } = found;
  const value = holder[key as string];
  if (value === undefined) return undefined;
  if (Array.isArray(holder)) holder.splice(Number(key), 1);
  else Reflect.deleteProperty(holder, key);
  return { path: at.join('.'), fault: '', value };
}

/** Opens a plan file that is damaged, from a later version or with more in it than there should be: what cannot be read is left out
 *  entry by entry and handed back, so that nothing is lost; what makes a plan at all must be there. */
export function rescuePlanFile(given: unknown): Rescued {
  const unsafe = unsafePlace(given);
  if (unsafe !== undefined) return { ok: false, path: unsafe, fault: 'unknown key or nesting depth' };
  const document = JSON.parse(JSON.stringify(given ?? null)) as Tree | null;
  if (document === null || typeof document !== 'object') return { ok: false, path: 'the document', fault: 'expected a plan, found none' };
  const leftovers: Leftover[] = [];
  if (document['format'] === 'roof-chart-plan' && document['formatVersion'] !== 1) {
    leftovers.push({ path: 'formatVersion', fault: 'written by a later version', value: document['formatVersion'] });
    document['formatVersion'] = 1;
  }
  for (let n = 0; n < MOST; n += 1) {
    const read = readPlanFile(document);
    if (read.ok) return { ok: true, file: read.file, leftovers };
    const left = takeOut(document, read.path);
    if (!left) return { ok: false, path: read.path, fault: read.fault };
    leftovers.push({ ...left, fault: read.fault });
  }
  return { ok: false, path: 'the document', fault: `more than ${MOST} unknown entries` };
}
