import { getOrThrow } from '../../collections/orThrow';
import { sightOf } from '../../bench/firstSight';
import { type Question, questionLine } from '../../bench/questions';
import { WATCH } from '../../bench/trials';
import { listText, placementText, terminalText } from '../names';
import type { Compared, ScanConclusion } from '../../bench/reconcile';
import type { Scan, ScanForm } from '../../bench/scan';
import type { Bus } from '../../nets/buses';
import type { Plan } from '../../plan/plan';
import { counted, formatAddress } from '../../quantity/format';
import type { PartSheet } from '../../sheets/partSheet';
import { boardSheet, partSheet, type Sheets } from '../../sheets/sheetIndex';

const FORM_WORDS: { readonly [F in ScanForm]: string } = {
  grid: 'a grid of rows',
  hex: 'hexadecimal numbers',
  decimal: 'decimal numbers',
  'bare-hex': 'hexadecimal numbers without 0x',
};

/** How a scan was understood. */
export function scanText({ addresses, held, form, eightBit, unread }: Scan): string {
  const eight = eightBit ? ' Converted from 8-bit to 7-bit addresses.' : '';
  const busy = held.length > 0 ? ` ${listText(held.map(formatAddress))} in use by a kernel driver.` : '';
  const left = unread.length > 0 ? ` Ignored: ${unread.join(', ')}.` : '';
  return `Read as ${FORM_WORDS[form]}: ${counted(addresses.length, 'address', 'addresses')}.${eight}${busy}${left}`;
}

export const COMPARED_TEXT: { readonly [K in Compared['is']]: string } = {
  'as-planned': 'as planned',
  'as-one': 'address conflict',
  missing: 'not found',
  behind: 'behind a multiplexer channel',
  extra: 'not in the plan',
};

const names = (plan: Plan, line: Compared): string =>
  line.is === 'extra' ? '' : listText([...new Set(line.who.map((one) => placementText(plan, one.placement)))]);

/** What a line of the comparison means. */
export function comparedText(plan: Plan, sheets: Sheets, line: Compared): string {
  switch (line.is) {
    case 'as-planned':
      return names(plan, line);
    case 'as-one':
      return `${names(plan, line)} share this address: the program cannot tell them apart. Change the address of one of them.`;
    case 'missing':
      return `${names(plan, line)} did not acknowledge. The first power-up list below says what to check.`;
    case 'behind':
      return `${names(plan, line)}: reachable only when its multiplexer channel is selected.`;
    case 'extra': {
      if (line.twice !== undefined) return `The 8-bit form of ${formatAddress(line.twice)}.`;
      const titles = line.parts.map((id) => getOrThrow(sheets.parts, id).sheet.title);
      const some = titles.slice(0, 4);
      const more = titles.length > some.length ? ` or ${titles.length - some.length} more` : '';
      return titles.length === 0 ? 'No part in the library has this address.' : `It could be: ${some.join('; ')}${more}.`;
    }
  }
}

/** What a scan as a whole says, and what to check, most likely first. */
export function conclusionText(plan: Plan, sheets: Sheets, bus: Bus, conclusion: ScanConclusion): string {
  const pin = (line: 'sda' | 'scl') => {
    const id = bus.pins[line];
    return id === undefined ? line.toUpperCase() : `${line.toUpperCase()} (${boardSheet(sheets, plan.board)?.pins.get(id)?.label ?? id})`;
  };
  return conclusion === 'all-respond'
    ? `Every address responds: ${pin('sda')} is held low. Check it for a short to ground, then disconnect the devices one by one.`
    : `No device responds. Check in this order: power and ground at the modules; ${pin('sda')} and ${pin('scl')} swapped; pull-up resistors; the bus pins set in the scanner.`;
}

export interface TrialText {
  readonly part: string;
  /** What to do and to look for. */
  readonly words: string;
  readonly button: string;
}

/** The action that changes the line of a part. */
function doing(part: PartSheet | undefined, see: string, isAnalog: boolean): string {
  if (part?.family !== 'input') return part ? `${see} Make it do that` : 'Make it react';
  return isAnalog ? 'Turn or press it through its full range' : 'Press or switch it';
}

/** What the user does and looks for in the test of a part. */
export function trialText(plan: Plan, sheets: Sheets, question: Question): TrialText {
  const label = (pin: string) => boardSheet(sheets, plan.board)?.pins.get(pin)?.label ?? pin;
  if (question.ask === 'link')
    return {
      part: `${label(question.drive)} and ${label(question.read)}`,
      words: `Short-circuit test: ${label(question.drive)} is driven low briefly.`,
      button: 'Test',
    };
  if (!('placement' in question)) return { part: '', words: '', button: 'Test' };
  const name = placementText(plan, question.placement);
  const placement = plan.placements.find((p) => p.id === question.placement);
  const part = placement && partSheet(sheets, placement.sheet);
  const see = placement ? sightOf(plan, sheets, placement) : '';
  if (question.ask === 'watch')
    return {
      part: terminalText(plan, sheets, question.key),
      words: `${doing(part?.sheet, see, question.analog)} while the probe monitors ${label(question.pin)} for ${WATCH / 1000} s.`,
      button: 'Watch',
    };
  if (question.ask === 'turn')
    return {
      part: name,
      words: `Turn it clockwise by several detents while the probe monitors both phases for ${WATCH / 1000} s.`,
      button: 'Watch',
    };
  const shown = question.ask === 'sign' ? question.see : see;
  return questionLine(question) === undefined
    ? { part: name, words: `With your own program: ${shown}`, button: 'Look' }
    : { part: name, words: shown, button: 'Run' };
}

/** What the probe confirms or contradicts.
 *  @param different answers that are not those of the plan */
export const probeText = (different: number): string =>
  different === 0
    ? 'The probe confirms the plan'
    : `${counted(different, 'answer')} ${different === 1 ? 'differs' : 'differ'} from the plan`;
