import { has, type With } from '../../collections/has';
import { throughPart } from '../../nets/passThrough';
import { type PlanTerminal, planTerminals } from '../../nets/terminals';
import type { Placement } from '../../plan/plan';
import type { PartSheet } from '../../sheets/partSheet';
import { partSheet } from '../../sheets/sheetIndex';
import type { CheckContext } from '../engine/check';

/** A level shifter with the lines of parts that are wired to its far side. */
export interface ShifterLines {
  readonly placement: Placement;
  readonly part: With<PartSheet, 'levelShifter'>;
  readonly items: readonly With<PlanTerminal, 'wire'>[];
}

/** Every level shifter of the plan with what goes through it. */
export function shifterLines({ plan, sheets }: CheckContext): readonly ShifterLines[] {
  const all = planTerminals(plan, sheets).filter(has('wire'));
  return plan.placements.flatMap((placement) => {
    const part = partSheet(sheets, placement.sheet)?.sheet;
    if (!part || !has('levelShifter')(part)) return [];
    return [{ placement, part, items: all.filter((item) => throughPart(plan, sheets, item.key) === placement.id) }];
  });
}
