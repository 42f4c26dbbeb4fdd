import { addressesOf } from '../nets/addresses';
import type { Edit } from '../plan/edit';
import type { Plan } from '../plan/plan';
import { formatAddress } from '../quantity/format';
import type { Sheets } from '../sheets/sheetIndex';
import { foundStep, lightStep } from './firstLight';
import type { Compared } from './reconcile';

/** How much of a plan the bench has borne out. */
export interface Verified {
  readonly parts: number;
  /** Parts that were seen to work, or whose every device answered where the plan has it. */
  readonly verified: number;
}

/** Counts the parts of a plan that are verified on the bench. A device that has another address now than when it was found is not. */
export function verifiedOf(plan: Plan, sheets: Sheets): Verified {
  const isVerified = (placement: Plan['placements'][number]): boolean => {
    if (plan.steps[lightStep(placement.id)] !== undefined) return true;
    const devices = addressesOf(plan, placement, sheets);
    return (
      devices.length > 0 &&
      devices.every(({ device, address }) => plan.steps[foundStep(placement.id, device.id)] === formatAddress(address))
    );
  };
  return { parts: plan.placements.length, verified: plan.placements.filter(isVerified).length };
}

/** The edits that keep which devices a scan found in their place. */
export function foundEdits(plan: Plan, lines: readonly Compared[]): readonly Edit[] {
  return lines.flatMap((line) => {
    if (line.is !== 'as-planned') return [];
    return line.who.flatMap(({ placement, device, address }): Edit[] => {
      const step = foundStep(placement, device.id);
      const done = formatAddress(address);
      return plan.steps[step] === done ? [] : [{ kind: 'step', step, done }];
    });
  });
}
