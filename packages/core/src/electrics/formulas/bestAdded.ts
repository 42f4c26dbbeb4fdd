import { firstOrThrow, lastOrThrow } from '../../collections/orThrow';
/** Of the values that satisfy all limits, the one nearest to their geometric mean. */
export function bestAdded(values: readonly number[], tryWith: (ohms: number) => { readonly verdict: string }): number | undefined {
  const good = values.filter((ohms) => tryWith(ohms).verdict === 'good');
  const middle = good.length > 0 ? Math.sqrt(firstOrThrow(good) * lastOrThrow(good)) : 0;
  return good.toSorted((a, b) => Math.abs(Math.log(a / middle)) - Math.abs(Math.log(b / middle)))[0];
}
