import { entryOrThrow } from '../collections/orThrow';
import { addressesOf } from '../nets/addresses';
import type { Edit } from '../plan/edit';
import { type Plan, sameEnd, type TerminalKey } from '../plan/plan';
import { formatAddress } from '../quantity/format';
import type { Sheets } from '../sheets/sheetIndex';
import { terminalPins } from './circuit';
import { foundStep, lightStep } from './firstLight';
import type { Compared } from './reconcile';

/** The step that marks a wire as confirmed. */
const sureStep = (key: TerminalKey): string => `sure:${key}`;

/** The edits that record confirmed wires. */
export function sureEdits(plan: Plan, keys: readonly TerminalKey[]): readonly Edit[] {
  return keys.flatMap((key): Edit[] => {
    const end = plan.wires[key]?.end;
    const step = sureStep(key);
    return end?.to !== 'pin' || plan.steps[step] === end.pin ? [] : [{ kind: 'step', step, done: end.pin }];
  });
}

/** How much of a plan the bench has borne out. */
export interface Verified {
  readonly parts: number;
  /** Parts that were seen to work, or whose every device answered where the plan has it. */
  readonly verified: number;
  /** Wires to board pins, and those confirmed by a bench test or a bench note. */
  readonly wires: number;
  readonly sure: number;
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
  const wires = terminalPins(plan);
  return {
    parts: plan.placements.length,
    verified: plan.placements.filter(isVerified).length,
    wires: wires.length,
    sure: wires.filter(
      ({ key, pin }) => plan.steps[sureStep(key)] === pin || sameEnd(plan.wireNotes[key]?.end, entryOrThrow(plan.wires, key).end),
    ).length,
  };
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
