import type { Plan } from '../../plan/plan';
import type { AdditionVerdict } from '../../review/addition';
import { type CompleteAddition, completeVerdict } from '../../review/additionNeeds';
import type { Sheets } from '../../sheets/sheetIndex';
import { partText } from './fitText';

/** An addition in short: what the list of all parts shows of it. */
export interface PartFit {
  readonly part: string;
  readonly verdict: AdditionVerdict;
  /** Its requirements in one line. */
  readonly words: string;
}

/** What of an addition the list shows.
 *  @param plan the plan without it */
export function partFitOf(plan: Plan, addition: CompleteAddition, sheets: Sheets): PartFit {
  return {
    part: addition.part,
    verdict: completeVerdict(addition),
    words: partText(plan, addition, sheets),
  };
}
