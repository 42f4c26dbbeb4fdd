import type { Check } from './check';
import { adcSourceHigh } from '../inputs/adcSourceHigh';
import { adcUnavailable } from '../inputs/adcUnavailable';
import { addressAlsoAnswers } from '../addresses/addressAlsoAnswers';
import { addressImpossible } from '../addresses/addressImpossible';
import { addressReserved } from '../addresses/addressReserved';
import { addressShared } from '../addresses/addressShared';
import { busMixedModes } from '../buses/busMixedModes';
import { busNotEnabled } from '../buses/busNotEnabled';
import { busOverloaded } from '../buses/busOverloaded';
import { busPairIllegal } from '../pins/busPairIllegal';
import { busTooFast } from '../buses/busTooFast';
import { capacitanceOver } from '../pullups/capacitanceOver';
import { chainBroken } from '../buses/chainBroken';
import { chainOrder } from '../buses/chainOrder';
import { checkFailed } from './checkFailed';
import { componentUnconnected } from '../plan/componentUnconnected';
import { dataOutHeld } from '../buses/dataOutHeld';
import { decouplingMissing } from '../power/decouplingMissing';
import { digitDriverMissing } from '../leds/digitDriverMissing';
import { driveOver } from '../power/driveOver';
import { driverWiring } from '../leds/driverWiring';
import { flashOver } from '../displays/flashOver';
import { frameRateLow } from '../buses/frameRateLow';
import { ghostKeys } from '../inputs/ghostKeys';
import { groundMissing } from '../power/groundMissing';
import { interruptLineShared } from '../pins/interruptLineShared';
import { ladderAmbiguous } from '../inputs/ladderAmbiguous';
import { ledDim } from '../leds/ledDim';
import { ledNeverOff } from '../leds/ledNeverOff';
import { ledNoResistor } from '../leds/ledNoResistor';
import { ledOverCurrent } from '../leds/ledOverCurrent';
import { ledSharedResistor } from '../leds/ledSharedResistor';
import { levelDamage } from '../levels/levelDamage';
import { levelNoMargin } from '../levels/levelNoMargin';
import { looksLikeI2c } from '../buses/looksLikeI2c';
import { memoryOver } from '../displays/memoryOver';
import { nameShared } from '../plan/nameShared';
import { packageCurrentOver } from '../power/packageCurrentOver';
import { pinBootLevel } from '../pins/pinBootLevel';
import { pinCannot } from '../pins/pinCannot';
import { pinCaution } from '../pins/pinCaution';
import { pinDirection } from '../pins/pinDirection';
import { pinReserved } from '../pins/pinReserved';
import { pinShared } from '../pins/pinShared';
import { polarityMismatch } from '../power/polarityMismatch';
import { portCurrentOver } from '../power/portCurrentOver';
import { pullupMissing } from '../pullups/pullupMissing';
import { pullupTooStrong } from '../pullups/pullupTooStrong';
import { pullupTooWeak } from '../pullups/pullupTooWeak';
import { pullupWrongRail } from '../pullups/pullupWrongRail';
import { readoutGlyph } from '../displays/readoutGlyph';
import { readoutOverflow } from '../displays/readoutOverflow';
import { referenceShared } from '../plan/referenceShared';
import { refreshLow } from '../leds/refreshLow';
import { regulatorHot } from '../power/regulatorHot';
import { selectFloating } from '../buses/selectFloating';
import { selectMissing } from '../buses/selectMissing';
import { selectShared } from '../buses/selectShared';
import { sheetUnverified } from '../plan/sheetUnverified';
import { seriesMissing } from '../leds/seriesMissing';
import { shifterDirection } from '../levels/shifterDirection';
import { shifterTooSlow } from '../levels/shifterTooSlow';
import { shifterUnfit } from '../levels/shifterUnfit';
import { supplyMissing } from '../power/supplyMissing';
import { supplyOver } from '../power/supplyOver';
import { supplyWrong } from '../power/supplyWrong';
import { terminalNeedsTie } from '../pins/terminalNeedsTie';
import { terminalOutside } from '../pins/terminalOutside';
import { terminalUnwired } from '../pins/terminalUnwired';
import { timerShared } from '../pins/timerShared';

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
  ledNeverOff,
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
  seriesMissing,
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

/** Whether a finding only requires a component that is at hand. */
export const isLackOfHelper = (finding: { readonly code: string }): boolean => checkOf(finding.code).missing !== undefined;

/** The check of a code.
 *  @throws Error when no check has it */
export function checkOf(code: string): Check {
  const check = CHECKS.find((c) => c.code === code);
  if (!check) throw new Error(`Unknown check code ${code}: expected one of ${CHECKS.map((c) => c.code).join(', ')}`);
  return check;
}
