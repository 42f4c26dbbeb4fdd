import { atOrThrow } from '@roof-chart/core/collections/orThrow';
import { parseSi, splitValues } from '@roof-chart/core/quantity/parse';
import type { BusSettings } from '@roof-chart/core/plan/plan';

/** The settings of a bus with some of them changed; none where nothing is left. */
export function changed(
  settings: BusSettings | undefined,
  change: { readonly [K in keyof BusSettings]?: BusSettings[K] | undefined },
): BusSettings | null {
  const next = Object.fromEntries(Object.entries({ ...settings, ...change }).filter(([, value]) => value !== undefined));
  return Object.keys(next).length > 0 ? next : null;
}

/** Applies a changed input; an empty field removes the setting. */
export function commit(text: string, before: number | undefined, set: (value: number | undefined) => void): void {
  const value = text.trim() === '' ? undefined : Number(text);
  if (value !== undefined && !Number.isFinite(value)) return;
  if (value !== before) set(value);
}

/** The resistances in a text, in rising order and once each, or the first piece that is none.
 *  @example readOhms('4k7 330, 330') // { values: [330, 4700] } */
export function readOhms(text: string): { readonly values: readonly number[]; readonly bad?: string } {
  const split = splitValues(text);
  if ('ambiguous' in split) return { values: [], bad: split.ambiguous };
  const { pieces } = split;
  const values = pieces.map((piece) => parseSi(piece, 'Ω'));
  const at = values.findIndex((value) => value === undefined || !(value >= 0.1 && value <= 1e8));
  if (at >= 0) return { values: [], bad: atOrThrow(pieces, at) };
  return { values: [...new Set(values as number[])].sort((a, b) => a - b) };
}
