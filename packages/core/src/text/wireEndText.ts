import { terminalText } from './names';
import { endText } from '../outputs/endText';
import { type Plan, terminalKey, type WireEnd } from '../plan/plan';
import type { Sheets } from '../sheets/sheetIndex';

/** A wire end in words.
 *  @example endWords(plan, sheets, { to: 'pin', pin: 'GP4' }) // 'GP4' */
export const wireEndText = (plan: Plan, sheets: Sheets, end: WireEnd): string =>
  end.to === 'terminal' ? terminalText(plan, sheets, terminalKey(end.placement, end.terminal)) : endText(plan, sheets, end);
