import { memoizeByObject } from '../memo/memoizeByObject';
import type { PartSheet, PartTerminal } from '../sheets/partSheet';

/** The cathode of a part that is nothing but one LED; null for all others. */
export const cathodeOf = memoizeByObject(({ terminals: { list }, polarity }: PartSheet): string | null => {
  const [anode, cathode, third] = list;
  return anode?.led && cathode?.role === 'ground' && !third && polarity ? cathode.id : null;
});

/** A single LED between a supply and an output that sinks its current: the cathode is the signal, the anode the supply, as in a part with a
 *  common anode. Always the same for one part. */
export const asActiveLow = memoizeByObject((part: PartSheet): PartSheet => {
  const [anode, cathode] = part.terminals.list as readonly [PartTerminal, PartTerminal];
  const { role, direction, need, through, prefers, led, ...common } = anode;
  const signal = { role, direction, need, ...(through ? { through } : {}), ...(prefers ? { prefers } : {}), ...(led ? { led } : {}) };
  const list: readonly PartTerminal[] = [
    // Any supply feeds it; whether it lights, and goes off, the checks of LEDs tell.
    { ...common, role: 'supply.vcc', direction, need, volts: { min: 0, max: Infinity } },
    { ...cathode, ...signal },
  ];
  return {
    ...part,
    terminals: { ...part.terminals, list },
    ...(part.polarity ? { polarity: { ...part.polarity, common: 'anode' as const } } : {}),
    firstLight: { ...part.firstLight, see: 'Active low: lit while the pin is low.' },
  };
});

/** The two ends of a part that is nothing but one LED, and the terminal that takes the place of its signal; null for all others. */
export const singleLed = memoizeByObject(
  (part: PartSheet): { readonly anode: string; readonly cathode: string; readonly signal: PartTerminal } | null => {
    const [anode, cathode, third] = part.terminals.list;
    if (!anode || !cathode || third || !part.polarity) return null;
    const ends = { anode: anode.id, cathode: cathode.id };
    if (cathodeOf(part) !== null) return { ...ends, signal: anode };
    return anode.role === 'supply.vcc' && cathode.led ? { ...ends, signal: cathode } : null;
  },
);

/** Whether the LEDs of a part take turns, digit by digit. */
export const hasDigits = memoizeByObject((part: PartSheet): boolean => part.terminals.list.some((t) => t.digit));
