import type { CheckContext, FindingDraft, Remedy } from '../engine/check';

/** Fraction of the remaining memory that frame buffers may use before a typical program runs out. */
const CROWDED = 2 / 3;

/** The use of a kind of memory: total, runtime, and displays. */
interface Taken {
  readonly total: number;
  readonly runtimeBytes: number;
  readonly usedBytes: number;
  readonly lines: readonly { readonly placement: string; readonly bytes: number }[];
}

/** The finding about memory that displays nearly fill or exceed; none if the board sheet does not state its size.
 *  @param remedies fixes that reduce it to the given number of bytes */
export function memoryFinding(
  { board }: CheckContext,
  { total, runtimeBytes, usedBytes, lines }: Taken,
  remedies: (most: number) => readonly Remedy[],
): readonly FindingDraft[] {
  const free = total - runtimeBytes;
  if (total === 0 || lines.length === 0 || usedBytes <= free * CROWDED) return [];
  const over = usedBytes > free;
  const top = lines.reduce((a, b) => (b.bytes > a.bytes ? b : a));
  return [
    {
      level: over ? 'clash' : 'risk',
      message: over ? 'over' : 'little',
      place: { view: 'readout' },
      data: {
        used: { is: 'quantity', value: usedBytes, unit: 'B' },
        free: { is: 'quantity', value: free, unit: 'B' },
        top: { is: 'placement', id: top.placement },
        most: { is: 'quantity', value: top.bytes, unit: 'B' },
      },
      source: board.sheet.memory.source,
      remedies: () => remedies(over ? free : free * CROWDED),
    },
  ];
}
