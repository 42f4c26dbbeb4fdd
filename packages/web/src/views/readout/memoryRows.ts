import type { MemoryLedger } from '@roof-chart/core/readout/memory';
import type { Plan } from '@roof-chart/core/plan/plan';
import { formatSi } from '@roof-chart/core/quantity/format';
import type { ScaleRow } from '../../hang/HangScale';

/** The runtime and every picture one after another, so that the last ends where all together are. */
export function memoryRows(plan: Plan, { ramBytes, runtimeBytes, lines }: MemoryLedger): readonly ScaleRow[] {
  const takers = [
    { id: 'runtime', head: 'Runtime, stack and radio', bytes: runtimeBytes },
    ...lines.map(({ placement, bytes }) => ({
      id: placement,
      head: plan.placements.find((p) => p.id === placement)?.name ?? placement,
      bytes,
    })),
  ].filter(({ bytes }) => bytes > 0);
  return takers.map(({ id, head, bytes }, n) => {
    const from = takers.slice(0, n).reduce((sum, taker) => sum + taker.bytes, 0);
    const at = from + bytes;
    return { id, head, value: formatSi(bytes, 'B'), marks: [{ at, kind: at > ramBytes ? 'clash' : 'disc', from, to: at }] };
  });
}
