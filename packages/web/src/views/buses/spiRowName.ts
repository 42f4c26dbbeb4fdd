import type { SpiRow } from '@roof-chart/core/electrics/reports/spiReport';
import type { Plan } from '@roof-chart/core/plan/plan';
import { nameOf } from '@roof-chart/core/text/memberName';

/** A part, or the further chip of it that a row is about. */
export const spiRowName = (plan: Plan, { head, further }: SpiRow): string =>
  further ? `${nameOf(plan, head)}, ${further.chip}` : nameOf(plan, head);
