import { sayTerminal } from '@roof-chart/core/checks/say';
import { endText } from '@roof-chart/core/outputs/endText';
import { type Plan, terminalKey, type WireEnd } from '@roof-chart/core/plan/plan';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';

/** A wire end in words.
 *  @example endWords(plan, sheets, { to: 'pin', pin: 'GP4' }) // 'GP4' */
export const endWords = (plan: Plan, sheets: Sheets, end: WireEnd): string =>
  end.to === 'terminal' ? sayTerminal(plan, sheets, terminalKey(end.placement, end.terminal)) : endText(plan, sheets, end);
