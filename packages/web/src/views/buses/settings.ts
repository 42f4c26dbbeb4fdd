import type { BusSettings } from '@roof-chart/core/plan/plan';

/** The settings of a bus with some of them changed; none where nothing is left. */
export function changed(
  settings: BusSettings | undefined,
  change: { readonly [K in keyof BusSettings]?: BusSettings[K] | undefined },
): BusSettings | null {
  const next = Object.fromEntries(Object.entries({ ...settings, ...change }).filter(([, value]) => value !== undefined));
  return Object.keys(next).length > 0 ? next : null;
}

/** Takes over what was typed, where it differs; an empty field takes the setting away. */
export function commit(text: string, before: number | undefined, set: (value: number | undefined) => void): void {
  const value = text.trim() === '' ? undefined : Number(text);
  if (value !== undefined && !Number.isFinite(value)) return;
  if (value !== before) set(value);
}
