import { memberKey } from './factPath';

/** One fact that differs between two versions of a sheet. */
export interface FactChange {
  /** `supply.volts.max`, or `terminals.VCC.also` for members of lists that have an id. */
  readonly path: string;
  readonly before: string | undefined;
  readonly after: string | undefined;
}

function flatten(value: unknown, path: string, into: Map<string, string>): void {
  if (Array.isArray(value) && value.some((v) => typeof v === 'object' && v !== null)) {
    for (const [at, member] of value.entries()) flatten(member, `${path}.${memberKey(member, at)}`, into);
  } else if (Array.isArray(value)) into.set(path, value.join(', '));
  else if (typeof value === 'object' && value !== null) {
    for (const [key, member] of Object.entries(value)) flatten(member, path ? `${path}.${key}` : key, into);
  } else into.set(path, String(value));
}

/** The facts in which two sheets differ, in the order of the later one. `list` in a path is left out: it is not a fact's name.
 *  @example diffSheets(v1, v2) // [{ path: 'supply.volts.max', before: '5.5', after: '3.6' }] */
export function diffSheets(before: object, after: object): readonly FactChange[] {
  const [was, is] = [new Map<string, string>(), new Map<string, string>()];
  flatten(before, '', was);
  flatten(after, '', is);
  const plain = (path: string) => path.replace('.list.', '.');
  const ignored = new Set(['version']);
  const changed = [...is].filter(([path, value]) => was.get(path) !== value && !ignored.has(path));
  const gone = [...was].filter(([path]) => !is.has(path));
  return [
    ...changed.map(([path, value]) => ({ path: plain(path), before: was.get(path), after: value })),
    ...gone.map(([path, value]) => ({ path: plain(path), before: value, after: undefined })),
  ];
}
