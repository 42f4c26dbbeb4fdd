import { addressAlsoAnswers } from './addressAlsoAnswers';
import { addressShared } from './addressShared';
import { busPairIllegal } from './busPairIllegal';
import type { Check } from './check';
import { interruptLineShared } from './interruptLineShared';
import { pinBootLevel } from './pinBootLevel';
import { pinCannot } from './pinCannot';
import { pinDirection } from './pinDirection';
import { pinReserved } from './pinReserved';
import { pinShared } from './pinShared';
import { sheetUnverified } from './sheetUnverified';
import { supplyWrong } from './supplyWrong';
import { terminalUnwired } from './terminalUnwired';
import { timerShared } from './timerShared';

/** Every check, sorted by code. */
export const CHECKS: readonly Check[] = [
  addressAlsoAnswers,
  addressShared,
  busPairIllegal,
  interruptLineShared,
  pinBootLevel,
  pinCannot,
  pinDirection,
  pinReserved,
  pinShared,
  sheetUnverified,
  supplyWrong,
  terminalUnwired,
  timerShared,
];

/** Whether a finding is about what the sheets know, not about what the plan does. */
export const isAboutFacts = (finding: { readonly code: string }): boolean => checkOf(finding.code).about === 'facts';

/** The check of a code.
 *  @throws Error when no check has it */
export function checkOf(code: string): Check {
  const check = CHECKS.find((c) => c.code === code);
  if (!check) throw new Error(`Unknown check code ${code}: expected one of ${CHECKS.map((c) => c.code).join(', ')}`);
  return check;
}
