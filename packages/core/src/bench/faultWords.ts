import { sayPlacement, sayTerminal } from '../checks/say';
import type { Plan } from '../plan/plan';
import { formatAddress } from '../quantity/format';
import { boardSheet, type Sheets } from '../sheets/sheetIndex';
import type { BenchFault } from './circuit';
import { type Question } from './questions';

const pinLabel = (plan: Plan, sheets: Sheets, pin: string): string => boardSheet(sheets, plan.board)?.pins.get(pin)?.label ?? pin;

/** What is wrong, in a sentence without its end. */
export function faultWords(plan: Plan, sheets: Sheets, fault: BenchFault): string {
  switch (fault.kind) {
    case 'swapped':
      return `${sayTerminal(plan, sheets, fault.a)} and ${sayTerminal(plan, sheets, fault.b)} are exchanged`;
    case 'wrong-address':
      return `${sayPlacement(plan, fault.placement)} answers at ${formatAddress(fault.address)}`;
    case 'no-pull-up':
      return `${boardSheet(sheets, plan.board)?.controllers.get(fault.controller)?.title ?? fault.controller} has no pull-ups`;
    case 'open-ground':
      return `${sayPlacement(plan, fault.placement)} has no ground`;
    case 'dead':
      return `${sayPlacement(plan, fault.placement)} is without supply, or dead`;
    case 'short':
      return `${pinLabel(plan, sheets, fault.pins[0])} and ${pinLabel(plan, sheets, fault.pins[1])} touch`;
    case 'one-off':
      return `${sayTerminal(plan, sheets, fault.key)} is one position off, at ${pinLabel(plan, sheets, fault.pin)}`;
  }
}

/** What was asked, in words. */
export function questionWords(plan: Plan, sheets: Sheets, question: Question): string {
  const label = (pin: string) => pinLabel(plan, sheets, pin);
  if (question.ask === 'scan') return `scan with SDA ${label(question.sda)} and SCL ${label(question.scl)}`;
  if (question.ask === 'read') return `${label(question.pin)}, pulled ${question.pull}`;
  return `${label(question.read)} while ${label(question.drive)} is low`;
}

/** An answer in words. */
export function answerWords(question: Question, answer: string): string {
  if (question.ask !== 'scan') return answer === '1' ? 'high' : 'low';
  if (answer === 'none') return 'nothing answers';
  if (answer === 'sda-low' || answer === 'scl-low') return `${answer.slice(0, 3).toUpperCase()} is low`;
  return answer
    .split(' ')
    .map((hex) => formatAddress(parseInt(hex, 16)))
    .join(', ');
}
