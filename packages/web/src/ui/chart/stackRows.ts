import type { ScaleRow } from './ScaleChart';

/** A share of a limited quantity. */
export interface Taker {
  readonly id: string;
  readonly head: string;
  readonly value: string;
  readonly amount: number;
}

/** Takers one after another, so that the last ends where all together are; those beyond the limit are marked. */
export function stackRows(takers: readonly Taker[], limit: number): readonly ScaleRow[] {
  return takers.map(({ id, head, value, amount }, n) => {
    const from = takers.slice(0, n).reduce((sum, taker) => sum + taker.amount, 0);
    const at = from + amount;
    return { id, head, value, marks: [{ at, kind: at > limit ? 'clash' : 'disc', from, to: at }] };
  });
}
