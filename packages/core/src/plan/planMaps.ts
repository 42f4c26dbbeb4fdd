import { dequal } from 'dequal';
import { beforeFirst } from '../collections/orThrow';
import type { Edit } from './edit';
import { type Plan, splitKey } from './plan';

/** The maps of a plan whose entries belong to a part: they go with it, come back with it, and differ one by one between two plans. */
type MapField =
  | 'wishes'
  | 'wireNotes'
  | 'softwarePwm'
  | 'together'
  | 'rates'
  | 'pulls'
  | 'series'
  | 'drivers'
  | 'ladders'
  | 'loads'
  | 'capacitors'
  | 'readouts'
  | 'references'
  | 'places'
  | 'layout';

interface PlanMap<F extends MapField> {
  /** What the keys are. */
  readonly by: 'terminal' | 'placement' | 'component' | 'item';
  /** The edit that sets or removes an entry. */
  edit(key: string, value: Plan[F][string] | undefined): Edit;
}

const MAPS: { readonly [F in MapField]: PlanMap<F> } = {
  wishes: { by: 'terminal', edit: (key, wish) => ({ kind: 'wish', ...splitKey(key), wish: wish ?? null }) },
  wireNotes: { by: 'terminal', edit: (key, note) => ({ kind: 'wire-note', ...splitKey(key), note: note ?? null }) },
  softwarePwm: { by: 'terminal', edit: (key, on) => ({ kind: 'software-pwm', ...splitKey(key), on: on === true }) },
  pulls: { by: 'terminal', edit: (key, pull) => ({ kind: 'pull', ...splitKey(key), pull: pull ?? null }) },
  series: { by: 'terminal', edit: (key, ohms) => ({ kind: 'series', ...splitKey(key), ohms: ohms ?? null }) },
  drivers: { by: 'terminal', edit: (key, driver) => ({ kind: 'driver', ...splitKey(key), driver: driver ?? null }) },
  together: { by: 'placement', edit: (placement, how) => ({ kind: 'together', placement, how: how ?? null }) },
  rates: { by: 'placement', edit: (placement, perSecond) => ({ kind: 'rate', placement, perSecond: perSecond ?? null }) },
  ladders: { by: 'placement', edit: (placement, ladder) => ({ kind: 'ladder', placement, ladder: ladder ?? null }) },
  loads: { by: 'placement', edit: (placement, load) => ({ kind: 'load', placement, load: load ?? null }) },
  capacitors: { by: 'placement', edit: (placement, there) => ({ kind: 'capacitors', placement, there: there === true }) },
  references: { by: 'component', edit: (component, name) => ({ kind: 'reference', component, name: name ?? null }) },
  places: { by: 'item', edit: (item, place) => ({ kind: 'place', item, place: place ?? null }) },
  layout: { by: 'placement', edit: (placement, place) => ({ kind: 'arrange', placement, place: place ?? null }) },
  readouts: { by: 'placement', edit: (placement, readout) => ({ kind: 'readout', placement, readout: readout ?? null }) },
};

const FIELDS = Object.keys(MAPS) as readonly MapField[];

/** The maps alone. */
export type PlanMaps = Pick<Plan, MapField>;

export const NO_MAPS: PlanMaps = Object.fromEntries(FIELDS.map((field) => [field, {}])) as unknown as PlanMaps;

/** A component of a bus belongs to its controller, or to the part that its segment lies behind, of which a channel may be named too. */
function ownerIn(field: MapField, key: string): string {
  const { by } = MAPS[field];
  return by === 'placement' || (by === 'item' && !key.includes(':')) ? key : beforeFirst(splitKey(key).placement, '.');
}

/** Any field's edit: which value belongs to which is kept by `MAPS`. */
const editOf = (field: MapField, key: string, value: unknown): Edit =>
  (MAPS[field] as PlanMap<'series'>).edit(key, value as number | undefined);

/** One entry of a map. */
export interface MapEntry {
  readonly field: MapField;
  /** The placement that it belongs to, and the terminal where it belongs to one. */
  readonly owner: string;
  readonly terminal: string | undefined;
  /** The edits that put it there, and that take it away. */
  readonly set: Edit;
  readonly clear: Edit;
}

/** Every entry of every map, map by map. */
export function mapEntries(maps: PlanMaps): readonly MapEntry[] {
  return FIELDS.flatMap((field) =>
    Object.entries(maps[field]).map(([key, value]): MapEntry => ({
      field,
      owner: ownerIn(field, key),
      terminal: MAPS[field].by === 'terminal' ? splitKey(key).terminal : undefined,
      set: editOf(field, key, value),
      clear: editOf(field, key, undefined),
    })),
  );
}

/** The maps without the entries of parts that do not stay. */
export function mapsKept(maps: PlanMaps, stays: (owner: string) => boolean): PlanMaps {
  const kept = (field: MapField) => Object.fromEntries(Object.entries(maps[field]).filter(([key]) => stays(ownerIn(field, key))));
  return Object.fromEntries(FIELDS.map((field) => [field, kept(field)])) as unknown as PlanMaps;
}

/** Entries of an object in pieces, each by what its key belongs to; what belongs to none is left out. */
export function cutBy<T>(
  map: { readonly [key: string]: T },
  pieceOf: (key: string) => string | undefined,
): ReadonlyMap<string, readonly (readonly [string, T])[]> {
  const pieces = new Map<string, [string, T][]>();
  for (const entry of Object.entries(map)) {
    const piece = pieceOf(entry[0]);
    if (piece === undefined) continue;
    const known = pieces.get(piece);
    if (known) known.push(entry);
    else pieces.set(piece, [entry]);
  }
  return pieces;
}

/** The entries of every map in pieces.
 *  @param pieceOf by placement
 *  @returns map by map, the entries of each piece */
export const mapsCut = (maps: PlanMaps, pieceOf: (placement: string) => string | undefined) =>
  FIELDS.map((field) => [field, cutBy<unknown>(maps[field], (key) => pieceOf(ownerIn(field, key)))] as const);

/** The edits that turn one plan's maps into another's. */
export function mapEdits(from: PlanMaps, to: PlanMaps): readonly Edit[] {
  return FIELDS.flatMap((field) => {
    const before: { readonly [key: string]: unknown } = from[field];
    const after: { readonly [key: string]: unknown } = to[field];
    return [...new Set([...Object.keys(before), ...Object.keys(after)])]
      .filter((key) => !dequal(before[key], after[key]))
      .map((key) => editOf(field, key, after[key]));
  });
}
