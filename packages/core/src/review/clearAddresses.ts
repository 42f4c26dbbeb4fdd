import { cheapestAddresses } from '../assign/addresses/addressChoice';
import { addressOptions, presentAddresses } from '../assign/addresses/addressOptions';
import { strapEdits } from '../assign/addresses/strapEdits';
import { addressesOf } from '../nets/addresses';
import type { Bus } from '../nets/buses';
import { reachedFrom } from '../nets/channels';
import { boardOf, type Edit } from '../plan/edit';
import type { Placement, Plan } from '../plan/plan';
import { partSheet, type Sheets } from '../sheets/sheetIndex';

/** The straps that keep every part of a bus apart with as few changes as can be, or the parts that no straps keep apart. */
export type ClearedAddresses =
  | { readonly ok: true; readonly changes: number; readonly edits: readonly Edit[] }
  /** A minimal set: without any one of them the rest can be separated. */
  | { readonly ok: false; readonly stuck: readonly string[] };

/** Chooses the straps of all parts of an I2C bus at once. Undefined where the plan's board is not known. */
export function clearAddresses(plan: Plan, sheets: Sheets, bus: Bus): ClearedAddresses | undefined {
  const board = boardOf(plan, sheets);
  if (!board) return undefined;
  const known = bus.members.flatMap((placement) => {
    const part = partSheet(sheets, placement.sheet)?.sheet;
    if (!part) return [];
    const now = addressesOf(plan, placement, sheets).map((a) => a.address);
    const isNow = (addresses: readonly number[]) => now.every((address) => addresses.includes(address));
    const addresses = addressOptions({ plan, board }, { placement, part }).map((option) => ({
      ...option,
      moved: isNow(option.addresses) ? 0 : 1,
    }));
    // Parts behind its channels keep their straps; parts on the main bus must avoid their addresses.
    const beyond = presentAddresses(plan, sheets, reachedFrom(plan, sheets, [placement]));
    return [{ placement, part, addresses, beyond }];
  });
  const chosen = cheapestAddresses(known);
  if (chosen)
    return {
      ok: true,
      changes: chosen.moved,
      edits: known.flatMap(({ placement, part }, at) => {
        const option = chosen.options[at];
        return option && option.moved > 0 ? (strapEdits({ plan, board }, { placement, part }, option.straps) ?? []) : [];
      }),
    };
  // Removes members that are not needed for the conflict, one by one.
  let stuck = known;
  for (const one of known) {
    const without = stuck.filter((other) => other !== one);
    if (!cheapestAddresses(without)) stuck = without;
  }
  return { ok: false, stuck: stuck.map(({ placement }: { readonly placement: Placement }) => placement.id) };
}
