import type { Plan } from '@roof-chart/core/plan/plan';
import { upgradePlan } from '@roof-chart/core/plan/upgradePlan';
import { checksum } from './checksum';

/** A stored document that is not what was written. It is left as it is. */
export class DamagedDocument extends Error {
  constructor(readonly planId: string) {
    super(`The stored document of ${planId} is damaged.`);
  }
}

/** The plan of a stored document, in today's shape.
 *  @throws DamagedDocument when the text is not what was written */
export function storedPlan(id: string, row: { readonly document: string; readonly checksum: string }): Plan {
  if (checksum(row.document) !== row.checksum) throw new DamagedDocument(id);
  try {
    return upgradePlan(JSON.parse(row.document) as Plan);
  } catch {
    throw new DamagedDocument(id);
  }
}
