import type { CheckContext, FindingDraft, Remedy } from './check';

/** Of what the runtime leaves, pictures may take so much before a program of any size gets into trouble. */
const CROWDED = 2 / 3;

/** What takes a kind of memory: all there is, what the runtime takes first, and the displays. */
interface Taken {
  readonly total: number;
  readonly runtimeBytes: number;
  readonly usedBytes: number;
  readonly lines: readonly { readonly placement: string; readonly bytes: number }[];
}

/** The finding about a memory that the displays crowd or overfill; none where the board's sheet does not say how much there is.
 *  @param remedies what brings it down to so many bytes */
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
