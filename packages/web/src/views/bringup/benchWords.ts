import { type Question, questionLine } from '@roof-chart/core/bench/questions';
import { WATCH } from '@roof-chart/core/bench/trials';
import { sayList, sayPlacement, sayTerminal } from '@roof-chart/core/checks/say';
import type { Compared } from '@roof-chart/core/bench/reconcile';
import type { Scan, ScanForm } from '@roof-chart/core/bench/scan';
import type { Plan } from '@roof-chart/core/plan/plan';
import { counted, formatAddress } from '@roof-chart/core/quantity/format';
import type { PartSheet } from '@roof-chart/core/sheets/partSheet';
import { boardSheet, partSheet, type Sheets } from '@roof-chart/core/sheets/sheetIndex';

const FORM_WORDS: { readonly [F in ScanForm]: string } = {
  grid: 'a grid of rows',
  hex: 'hexadecimal numbers',
  decimal: 'decimal numbers',
  'bare-hex': 'hexadecimal numbers without 0x',
};

/** How a scan was understood. */
export function scanWords({ addresses, held, form, eightBit, unread }: Scan): string {
  const eight = eightBit ? ' They were 8-bit addresses, twice as large.' : '';
  const busy = held.length > 0 ? ` ${sayList(held.map(formatAddress))} held by the operating system.` : '';
  const left = unread.length > 0 ? ` Left out: ${unread.join(', ')}.` : '';
  return `Read as ${FORM_WORDS[form]}: ${counted(addresses.length, 'address', 'addresses')}.${eight}${busy}${left}`;
}

export const COMPARED_WORDS: { readonly [K in Compared['is']]: string } = {
  'as-planned': 'as planned',
  'as-one': 'two as one',
  missing: 'not found',
  behind: 'behind a channel',
  extra: 'not in the plan',
};

const names = (plan: Plan, line: Compared): string =>
  line.is === 'extra' ? '' : sayList([...new Set(line.who.map((one) => sayPlacement(plan, one.placement)))]);

/** What a line of the comparison means. */
export function comparedWords(plan: Plan, sheets: Sheets, line: Compared): string {
  switch (line.is) {
    case 'as-planned':
      return names(plan, line);
    case 'as-one':
      return `${names(plan, line)} answer together: the program cannot tell them apart. Give one of them another address.`;
    case 'missing':
      return `${names(plan, line)} did not answer. The first-light list below says what to look at.`;
    case 'behind':
      return `${names(plan, line)}: asked only once its channel is open.`;
    case 'extra': {
      if (line.twice !== undefined) return `Twice ${formatAddress(line.twice)}: that address in its 8-bit form.`;
      const titles = line.parts.map((id) => sheets.parts.get(id)!.sheet.title);
      const some = titles.slice(0, 4);
      const more = titles.length > some.length ? ` and ${titles.length - some.length} more` : '';
      return titles.length === 0 ? 'No part of the catalogue has this address.' : `It could be ${sayList(some)}${more}.`;
    }
  }
}

export interface TrialWords {
  readonly part: string;
  /** What to do and to look for. */
  readonly words: string;
  readonly button: string;
}

/** What moves the line of a part. */
function doing(part: PartSheet | undefined, isAnalog: boolean): string {
  if (part?.family !== 'input') return part ? `${part.firstLight.see} Make it do that` : 'Make it react';
  return isAnalog ? 'Turn or press it through all that it can do' : 'Press or switch it';
}

/** What somebody does and looks for at a part. */
export function trialWords(plan: Plan, sheets: Sheets, question: Question): TrialWords {
  const label = (pin: string) => boardSheet(sheets, plan.board)?.pins.get(pin)?.label ?? pin;
  if (question.ask === 'link')
    return {
      part: `${label(question.drive)} and ${label(question.read)}`,
      words: `Whether they touch: ${label(question.drive)} is driven low for a moment.`,
      button: 'Ask',
    };
  if (!('placement' in question)) return { part: '', words: '', button: 'Ask' };
  const name = sayPlacement(plan, question.placement);
  const sheet = plan.placements.find((p) => p.id === question.placement)?.sheet;
  const part = sheet && partSheet(sheets, sheet);
  if (question.ask === 'watch')
    return {
      part: sayTerminal(plan, sheets, question.key),
      words: `${doing(part?.sheet, question.analog)}, while the probe watches ${label(question.pin)} for ${WATCH / 1000} s.`,
      button: 'Watch',
    };
  if (question.ask === 'turn')
    return {
      part: name,
      words: `Turn it clockwise by some clicks, while the probe watches both phases for ${WATCH / 1000} s.`,
      button: 'Watch',
    };
  const shown = question.ask === 'sign' ? question.see : (part?.sheet.firstLight.see ?? '');
  return questionLine(question) === undefined
    ? { part: name, words: `With a program of your own: ${shown}`, button: 'Look' }
    : { part: name, words: shown, button: 'Show it' };
}
