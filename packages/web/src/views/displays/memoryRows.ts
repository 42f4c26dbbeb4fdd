import type { FlashLedger, FlashLine } from '@roof-chart/core/displays/flash';
import type { MemoryLedger } from '@roof-chart/core/displays/memory';
import type { Plan } from '@roof-chart/core/plan/plan';
import { formatBytes } from '@roof-chart/core/quantity/format';
import type { ScaleRow } from '../../ui/chart/ScaleChart';
import { stackRows } from '../../ui/chart/stackRows';

interface Share {
  readonly id: string;
  readonly head: string;
  readonly bytes: number;
}

const rowsOf = (shares: readonly Share[], limit: number): readonly ScaleRow[] =>
  stackRows(
    shares.filter(({ bytes }) => bytes > 0).map(({ id, head, bytes }) => ({ id, head, value: formatBytes(bytes), amount: bytes })),
    limit,
  );

const nameOf = (plan: Plan, placement: string): string => plan.placements.find((p) => p.id === placement)?.name ?? placement;

/** The runtime and every picture that is worked out in RAM. */
export const memoryRows = (plan: Plan, { ramBytes, runtimeBytes, lines }: MemoryLedger): readonly ScaleRow[] =>
  rowsOf(
    [
      { id: 'runtime', head: 'Runtime, stack and radio', bytes: runtimeBytes },
      ...lines.map(({ placement, bytes }) => ({ id: placement, head: nameOf(plan, placement), bytes })),
    ],
    ramBytes,
  );

function flashHead(plan: Plan, { placement, what, name }: FlashLine): string {
  if (what === 'font') return '5 × 7 font';
  const of = nameOf(plan, placement);
  if (what === 'picture') return `${of}: ${name ?? 'picture'}`;
  return what === 'table' ? `${of}: segment table` : `${of}: custom characters`;
}

/** The boot loader and all that displays bring along in flash. */
export const flashRows = (plan: Plan, { flashBytes, runtimeBytes, lines }: FlashLedger): readonly ScaleRow[] =>
  rowsOf(
    [
      { id: 'loader', head: 'Boot loader', bytes: runtimeBytes },
      ...lines.map((line, n) => ({ id: `${line.placement} ${line.what} ${n}`, head: flashHead(plan, line), bytes: line.bytes })),
    ],
    flashBytes,
  );
