import { placementText, terminalText } from './names';
import type { Plan } from '../plan/plan';
import { formatAddress } from '../quantity/format';
import { boardSheet, type Sheets } from '../sheets/sheetIndex';
import type { BenchFault } from '../bench/circuit';
import { type Question } from '../bench/questions';

const pinLabel = (plan: Plan, sheets: Sheets, pin: string): string => boardSheet(sheets, plan.board)?.pins.get(pin)?.label ?? pin;

/** What is wrong, in a sentence without its end. */
export function faultText(plan: Plan, sheets: Sheets, fault: BenchFault): string {
  switch (fault.kind) {
    case 'swapped':
      return `${terminalText(plan, sheets, fault.a)} and ${terminalText(plan, sheets, fault.b)} are swapped`;
    case 'wrong-address':
      return `${placementText(plan, fault.placement)} responds at ${formatAddress(fault.address)}`;
    case 'no-pull-up':
      return `${boardSheet(sheets, plan.board)?.controllers.get(fault.controller)?.title ?? fault.controller}: no pull-up resistors`;
    case 'open-ground':
      return `${placementText(plan, fault.placement)}: ground not connected`;
    case 'dead':
      return `${placementText(plan, fault.placement)}: no supply, or defective`;
    case 'short':
      return `${pinLabel(plan, sheets, fault.pins[0])} and ${pinLabel(plan, sheets, fault.pins[1])} shorted together`;
    case 'one-off':
      return `${terminalText(plan, sheets, fault.key)} is one header position off, at ${pinLabel(plan, sheets, fault.pin)}`;
  }
}

/** A question in words. */
export function questionText(plan: Plan, sheets: Sheets, question: Question): string {
  const label = (pin: string) => pinLabel(plan, sheets, pin);
  if (question.ask === 'scan') return `I2C scan with SDA ${label(question.sda)} and SCL ${label(question.scl)}`;
  if (question.ask === 'read') return `${label(question.pin)} with pull-${question.pull}`;
  if (question.ask === 'link') return `${label(question.read)} while ${label(question.drive)} is low`;
  if (question.ask === 'held') return `${label(question.pin)} against a pull-up and a pull-down`;
  if (question.ask === 'search') return `1-Wire search at ${label(question.pin)}`;
  const name = placementText(plan, question.placement);
  if (question.ask === 'reply') return `${name}: SPI read`;
  if (question.ask === 'watch') return `${terminalText(plan, sheets, question.key)} while operated`;
  return question.ask === 'turn' ? `${name}, turned clockwise` : `${name}, observed`;
}

const LEVEL = { 1: 'high', 0: 'low' };
const PLAIN: { readonly [A in Question['ask']]?: { readonly [answer: string]: string } } = {
  read: LEVEL,
  link: { 1: 'apart', 0: 'joined' },
  held: { 1: 'driven', 0: 'floating' },
  reply: { 1: 'correct reply', 0: 'no correct reply' },
  watch: { 1: 'moves', 0: 'no change' },
  turn: { a: 'first phase first', b: 'second phase first', none: 'only one phase' },
  sign: { 1: 'as expected', 0: 'not as expected', else: 'others too' },
};

/** An answer in words. */
export function answerText(question: Question, answer: string): string {
  const words = PLAIN[question.ask]?.[answer];
  if (words !== undefined) return words;
  if (question.ask === 'search') return answer === 'none' ? 'no device responds' : `responds: ${answer}`;
  if (question.ask !== 'scan') return answer;
  if (answer === 'none') return 'no device responds';
  if (answer === 'sda-low' || answer === 'scl-low') return `${answer.slice(0, 3).toUpperCase()} is low`;
  return answer
    .split(' ')
    .map((hex) => formatAddress(parseInt(hex, 16)))
    .join(', ');
}
