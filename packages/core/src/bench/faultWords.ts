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
      return `${boardSheet(sheets, plan.board)?.controllers.get(fault.controller)?.title ?? fault.controller}: no pull-up resistors`;
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
  if (question.ask === 'link') return `${label(question.read)} while ${label(question.drive)} is low`;
  if (question.ask === 'held') return `${label(question.pin)} against a pull-up and a pull-down`;
  if (question.ask === 'search') return `search of 1-Wire at ${label(question.pin)}`;
  const name = sayPlacement(plan, question.placement);
  if (question.ask === 'reply') return `${name}, asked over SPI`;
  if (question.ask === 'watch') return `${sayTerminal(plan, sheets, question.key)}, while somebody moves it`;
  return question.ask === 'turn' ? `${name}, turned clockwise` : `${name}, looked at`;
}

const LEVEL = { 1: 'high', 0: 'low' };
const PLAIN: { readonly [A in Question['ask']]?: { readonly [answer: string]: string } } = {
  read: LEVEL,
  link: { 1: 'apart', 0: 'joined' },
  held: { 1: 'keeps its level', 0: 'follows' },
  reply: { 1: 'replies as it should', 0: 'no such reply' },
  watch: { 1: 'moves', 0: 'stands still' },
  turn: { a: 'first phase first', b: 'second phase first', none: 'not both phases' },
  sign: { 1: 'as it should', 0: 'not as it should', else: 'something else, too' },
};

/** An answer in words. */
export function answerWords(question: Question, answer: string): string {
  const words = PLAIN[question.ask]?.[answer];
  if (words !== undefined) return words;
  if (question.ask === 'search') return answer === 'none' ? 'nobody answers' : `${answer} answer`;
  if (question.ask !== 'scan') return answer;
  if (answer === 'none') return 'nothing answers';
  if (answer === 'sda-low' || answer === 'scl-low') return `${answer.slice(0, 3).toUpperCase()} is low`;
  return answer
    .split(' ')
    .map((hex) => formatAddress(parseInt(hex, 16)))
    .join(', ');
}
