/** Facts of a sheet by name: `electrical/pullUpOhms/max`, `terminals/SDA/label`. Members of lists are named by their id,
 *  their address or their place, and `list` is stepped into without being named, so that a name outlives a new order. */

/** The key of a list member: its ID, otherwise its address, otherwise its position from 1. */
export function memberKey(value: unknown, at: number): string {
  const member = value as { id?: unknown; address?: unknown } | null;
  if (member && typeof member === 'object') {
    if (typeof member.id === 'string') return member.id;
    if (typeof member.address === 'number') return `0x${member.address.toString(16)}`;
  }
  return String(at + 1);
}

export type FactValue = string | number | boolean | readonly (string | number)[];

export interface Fact {
  readonly path: string;
  readonly value: FactValue;
}

const isRecord = (value: unknown): value is { readonly [key: string]: unknown } =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const isPlainList = (value: readonly unknown[]): boolean => value.every((v) => typeof v === 'string' || typeof v === 'number');

/** What a list or an object holds, by name. */
function membersOf(value: unknown): readonly (readonly [string, unknown])[] {
  if (Array.isArray(value)) return isPlainList(value) ? [] : value.map((member, at) => [memberKey(member, at), member] as const);
  if (!isRecord(value)) return [];
  return Object.entries(value).flatMap(([key, member]) => (key === 'list' ? membersOf(member) : [[key, member] as const]));
}

function collect(value: unknown, path: string, into: Fact[]): void {
  if (Array.isArray(value) && isPlainList(value)) into.push({ path, value: value as readonly (string | number)[] });
  else if (typeof value === 'object' && value !== null)
    for (const [key, member] of membersOf(value)) collect(member, path ? `${path}/${key}` : key, into);
  else if (value !== undefined) into.push({ path, value: value as FactValue });
}

/** Every single fact of a sheet, or of a part of it, in the sheet's order.
 *  @example factsOf(sheet.supply, 'supply')[0] // { path: 'supply/volts/min', value: 3.3 } */
export function factsOf(value: unknown, at = ''): readonly Fact[] {
  const facts: Fact[] = [];
  collect(value, at, facts);
  return facts;
}

/** The fact or group at a path; undefined if there is none. */
export function factAt(sheet: unknown, path: string): unknown {
  let value = sheet;
  for (const key of path.split('/')) {
    const found = membersOf(value).find(([name]) => name === key);
    if (!found) return undefined;
    value = found[1];
  }
  return value;
}

function replaced(value: unknown, keys: readonly string[], fact: FactValue): unknown {
  const [key, ...rest] = keys;
  if (key === undefined) return fact;
  if (Array.isArray(value)) {
    const at = value.findIndex((member, n) => memberKey(member, n) === key);
    return at < 0 ? undefined : value.with(at, replaced(value[at], rest, fact));
  }
  if (!isRecord(value)) return undefined;
  if (key !== 'list' && Array.isArray(value['list']) && !(key in value)) {
    const list = replaced(value['list'], keys, fact);
    return list === undefined ? undefined : { ...value, list };
  }
  // A missing fact can be added; a missing group cannot.
  if (!Object.hasOwn(value, key) && rest.length > 0) return undefined;
  const member = replaced(value[key], rest, fact);
  return member === undefined ? undefined : { ...value, [key]: member };
}

/** The sheet with another value at a path; undefined where the path leads nowhere. The sheet itself is not changed. */
export function withFact<T extends object>(sheet: T, path: string, value: FactValue): T | undefined {
  return replaced(sheet, path.split('/'), value) as T | undefined;
}
