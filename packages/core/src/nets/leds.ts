import { memoizeByObject } from '../memo/memoizeByObject';
import type { PartSheet } from '../sheets/partSheet';

/** The cathode of a part that is nothing but one LED; null for all others. */
export const cathodeOf = memoizeByObject(({ terminals: { list }, polarity }: PartSheet): string | null => {
  const [anode, cathode] = list;
  return list.length === 2 && polarity && anode!.led && cathode!.role === 'ground' ? cathode!.id : null;
});

/** Whether the LEDs of a part take turns, digit by digit. */
export const hasDigits = memoizeByObject((part: PartSheet): boolean => part.terminals.list.some((t) => t.digit));
