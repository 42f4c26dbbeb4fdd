import { findNets } from '../../nets/nets';
import { boardOf } from '../../plan/edit';
import type { Plan } from '../../plan/plan';
import type { Sheets } from '../../sheets/sheetIndex';
import { aboveSupply } from './busInputs';
import { levelPairs } from './levels';

/** Pins with more than their supply on them that tolerate it under a condition. */
export interface Tolerance {
  readonly pins: readonly string[];
  /** The highest voltage on any of them, in volts. */
  readonly volts: number;
  /** The condition under which they do not tolerate it. */
  readonly unless: string;
}

/** The pins that must tolerate more than the supply of the chip, by the condition that their sheet states. */
export function tolerancesOf(plan: Plan, sheets: Sheets): readonly Tolerance[] {
  const board = boardOf(plan, sheets);
  if (!board) return [];
  const nets = findNets(plan, sheets);
  const byCondition = new Map<string, Map<string, number>>();
  for (const { key, way, verdict, mostVolts } of levelPairs(plan, sheets)) {
    if (way !== 'to-board' || verdict === 'damage' || mostVolts <= aboveSupply(board)) continue;
    for (const pin of nets.byTerminal.get(key)?.pins ?? []) {
      const unless = board.pins.get(pin)?.limits?.tolerantUnless;
      if (unless === undefined) continue;
      const pins = byCondition.get(unless) ?? new Map<string, number>();
      byCondition.set(unless, pins.set(pin, Math.max(mostVolts, pins.get(pin) ?? 0)));
    }
  }
  return [...byCondition].map(([unless, pins]) => ({ pins: [...pins.keys()], volts: Math.max(...pins.values()), unless }));
}
