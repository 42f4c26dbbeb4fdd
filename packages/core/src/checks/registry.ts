import type { Check } from './check';
import { adcSourceHigh } from './adcSourceHigh';
import { adcUnavailable } from './adcUnavailable';
import { addressAlsoAnswers } from './addressAlsoAnswers';
import { addressImpossible } from './addressImpossible';
import { addressReserved } from './addressReserved';
import { addressShared } from './addressShared';
import { busMixedModes } from './busMixedModes';
import { busNotEnabled } from './busNotEnabled';
import { busOverloaded } from './busOverloaded';
import { busPairIllegal } from './busPairIllegal';
import { busTooFast } from './busTooFast';
import { capacitanceOver } from './capacitanceOver';
import { chainBroken } from './chainBroken';
import { chainOrder } from './chainOrder';
import { checkFailed } from './checkFailed';
import { componentUnconnected } from './componentUnconnected';
import { dataOutHeld } from './dataOutHeld';
import { decouplingMissing } from './decouplingMissing';
import { digitDriverMissing } from './digitDriverMissing';
import { driveOver } from './driveOver';
import { driverWiring } from './driverWiring';
import { flashOver } from './flashOver';
import { frameRateLow } from './frameRateLow';
import { ghostKeys } from './ghostKeys';
import { groundMissing } from './groundMissing';
import { interruptLineShared } from './interruptLineShared';
import { ladderAmbiguous } from './ladderAmbiguous';
import { ledDim } from './ledDim';
import { ledNoResistor } from './ledNoResistor';
import { ledOverCurrent } from './ledOverCurrent';
import { ledSharedResistor } from './ledSharedResistor';
import { levelDamage } from './levelDamage';
import { levelNoMargin } from './levelNoMargin';
import { looksLikeI2c } from './looksLikeI2c';
import { memoryOver } from './memoryOver';
import { nameShared } from './nameShared';
import { packageCurrentOver } from './packageCurrentOver';
import { pinBootLevel } from './pinBootLevel';
import { pinCannot } from './pinCannot';
import { pinCaution } from './pinCaution';
import { pinDirection } from './pinDirection';
import { pinReserved } from './pinReserved';
import { pinShared } from './pinShared';
import { polarityMismatch } from './polarityMismatch';
import { portCurrentOver } from './portCurrentOver';
import { pullupMissing } from './pullupMissing';
import { pullupTooStrong } from './pullupTooStrong';
import { pullupTooWeak } from './pullupTooWeak';
import { pullupWrongRail } from './pullupWrongRail';
import { readoutGlyph } from './readoutGlyph';
import { readoutOverflow } from './readoutOverflow';
import { referenceShared } from './referenceShared';
import { refreshLow } from './refreshLow';
import { regulatorHot } from './regulatorHot';
import { selectFloating } from './selectFloating';
import { selectMissing } from './selectMissing';
import { selectShared } from './selectShared';
import { sheetUnverified } from './sheetUnverified';
import { shifterDirection } from './shifterDirection';
import { shifterTooSlow } from './shifterTooSlow';
import { shifterUnfit } from './shifterUnfit';
import { supplyMissing } from './supplyMissing';
import { supplyOver } from './supplyOver';
import { supplyWrong } from './supplyWrong';
import { terminalNeedsTie } from './terminalNeedsTie';
import { terminalOutside } from './terminalOutside';
import { terminalUnwired } from './terminalUnwired';
import { timerShared } from './timerShared';

/** Every check, sorted by code. */
export const CHECKS: readonly Check[] = [
  adcSourceHigh,
  adcUnavailable,
  addressAlsoAnswers,
  addressImpossible,
  addressReserved,
  addressShared,
  busMixedModes,
  busNotEnabled,
  busOverloaded,
  busPairIllegal,
  busTooFast,
  capacitanceOver,
  chainBroken,
  chainOrder,
  checkFailed,
  componentUnconnected,
  dataOutHeld,
  decouplingMissing,
  digitDriverMissing,
  driveOver,
  driverWiring,
  flashOver,
  frameRateLow,
  ghostKeys,
  groundMissing,
  interruptLineShared,
  ladderAmbiguous,
  ledDim,
  ledNoResistor,
  ledOverCurrent,
  ledSharedResistor,
  levelDamage,
  levelNoMargin,
  looksLikeI2c,
  memoryOver,
  nameShared,
  packageCurrentOver,
  pinBootLevel,
  pinCannot,
  pinCaution,
  pinDirection,
  pinReserved,
  pinShared,
  polarityMismatch,
  portCurrentOver,
  pullupMissing,
  pullupTooStrong,
  pullupTooWeak,
  pullupWrongRail,
  readoutGlyph,
  readoutOverflow,
  referenceShared,
  refreshLow,
  regulatorHot,
  selectFloating,
  selectMissing,
  selectShared,
  sheetUnverified,
  shifterDirection,
  shifterTooSlow,
  shifterUnfit,
  supplyMissing,
  supplyOver,
  supplyWrong,
  terminalNeedsTie,
  terminalOutside,
  terminalUnwired,
  timerShared,
];

/** Whether a finding is about the sheets, not about the plan. */
export const isAboutFacts = (finding: { readonly code: string }): boolean => checkOf(finding.code).about === 'facts';

/** Whether a finding only requires a component that is at hand. */
export const isLackOfHelper = (finding: { readonly code: string }): boolean => checkOf(finding.code).lacks !== undefined;

/** The check of a code.
 *  @throws Error when no check has it */
export function checkOf(code: string): Check {
  const check = CHECKS.find((c) => c.code === code);
  if (!check) throw new Error(`Unknown check code ${code}: expected one of ${CHECKS.map((c) => c.code).join(', ')}`);
  return check;
}
