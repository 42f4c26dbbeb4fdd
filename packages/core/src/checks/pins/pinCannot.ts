import { pinFit, type FitReason } from '../../assign/fit/pinFit';
import { PIN_ROLES, ROLE_WORDS } from '../../sheets/roles';
import type { PlanTerminal } from '../../nets/terminals';
import type { Check, CheckContext, FindingDraft, Message } from '../engine/check';
import { busOfTerminal, bySoftware, moveBus, moveToFree, SOFTWARE_BUS, swapLines } from '../fixes/remedyParts';
import { pwmBySoftware, SOFTWARE_PWM } from '../fixes/pwmBySoftware';

const because = (text: string, why: string): Message => ({ title: '{pin} does not support {terminal}', text, why });

/** Reasons that belong to this check; the others are another check's (`pin-reserved`, `supply-wrong`). */
const OWN: readonly FitReason[] = ['no-line', 'no-adc', 'no-pwm', 'no-interrupt', 'input-only', 'analog-only', 'output-only'];

function finding(context: CheckContext, item: PlanTerminal, pin: string, reason: FitReason): FindingDraft {
  return {
    level: 'clash',
    message: reason,
    place: { pins: [pin], terminals: [item.key] },
    data: {
      pin: { is: 'pin', pin },
      terminal: { is: 'terminal', key: item.key },
      role: { is: 'words', text: ROLE_WORDS[item.terminal.role] },
    },
    source: context.board.sheet.pins.source,
    // A bus line alone on a new pin would leave its bus, so its whole part moves to a legal set.
    remedies: () => {
      const bus = busOfTerminal(context, item);
      return [
        ...swapLines(context, item),
        ...(moveBus(context, item) ?? moveToFree(context, item)),
        ...(reason === 'no-line' && bus ? bySoftware(context, bus) : []),
        ...(reason === 'no-pwm' ? pwmBySoftware(context, [item]) : []),
      ];
    },
  };
}

export const pinCannot: Check = {
  code: 'pin-cannot',
  harm: true,
  question: 'Does every pin support the function of its terminal?',
  messages: {
    'no-line': because(
      '{terminal}: {role}; no controller has this line on {pin}.',
      'Each controller line is available only on the pins whose alternate functions include it.',
    ),
    'no-adc': because('{terminal} is an analog output; {pin} has no ADC channel.', 'Only pins with an ADC channel can measure a voltage.'),
    'no-pwm': because('{terminal} needs PWM; {pin} has no timer channel.', 'Hardware PWM is available only on pins with a timer channel.'),
    'no-interrupt': because('{terminal} needs an interrupt; {pin} has no interrupt.', 'A program that polls the pin misses short pulses.'),
    'input-only': because('{terminal} must be driven by the board; {pin} is input-only.', 'The pin has no output driver.'),
    'analog-only': because(
      '{terminal} is a digital signal; {pin} is analog-only.',
      'The pin is connected to the ADC only; it has neither a digital input nor an output driver.',
    ),
    'output-only': because('{terminal} must be read by the board; {pin} is output-only.', 'The pin has no input buffer.'),
  },
  remedies: {
    swap: 'Swap SDA and SCL of {parts}',
    move: 'Move {terminal} to {pin}',
    software: SOFTWARE_BUS,
    'software-pwm': SOFTWARE_PWM,
    'move-bus': 'Move the bus to {controller} ({pins})',
  },
  examine: (context) =>
    context.terminals.flatMap((item) => {
      if (item.wire?.end.to !== 'pin' || !PIN_ROLES[item.terminal.role]) return [];
      const fit = pinFit(context.board, item.wire.end.pin, item.terminal);
      return fit.verdict === 'cannot' && OWN.includes(fit.reason) ? [finding(context, item, item.wire.end.pin, fit.reason)] : [];
    }),
};
