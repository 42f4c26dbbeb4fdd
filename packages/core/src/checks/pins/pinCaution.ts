import { isCautionFor, pinTroubles, type PinTrouble } from '../../assign/fit/pinUse';
import { capitalised } from '../../quantity/format';
import type { PlanTerminal } from '../../nets/terminals';
import type { Plan } from '../../plan/plan';
import type { Check, CheckContext, FindingDraft, Level } from '../engine/check';
import { moveBus, moveWhere } from '../fixes/remedyParts';

const LEVEL_OF: { readonly [E in PinTrouble['effect']]: Level } = {
  fails: 'clash',
  setting: 'risk',
  'no-start': 'risk',
  acts: 'risk',
  disturbs: 'hint',
};

function isCaution(context: CheckContext, plan: Plan, item: PlanTerminal): boolean {
  const end = plan.wires[item.key]?.end;
  const pin = end?.to === 'pin' ? context.board.pins.get(end.pin) : undefined;
  return pin !== undefined && (isCautionFor(pin, item.terminal) || pinTroubles(pin, item.part, item.terminal).length > 0);
}

function finding(context: CheckContext, item: PlanTerminal, pin: string, { duty, use, effect }: PinTrouble): FindingDraft {
  return {
    level: LEVEL_OF[effect],
    message: use,
    place: { pins: [pin], terminals: [item.key] },
    data: {
      pin: { is: 'pin', pin },
      terminal: { is: 'terminal', key: item.key },
      note: { is: 'words', text: duty.note.replace(/\.$/, '') },
      until: { is: 'words', text: duty.until === undefined ? '' : ` ${capitalised(duty.until)}.` },
    },
    source: context.board.sheet.pins.source,
    remedies: () => {
      const alone = moveWhere(
        context,
        item,
        (other) => !isCautionFor(other, item.terminal) && pinTroubles(other, item.part, item.terminal).length === 0,
      );
      return alone.length > 0 ? alone : (moveBus(context, item, (after) => !isCaution(context, after, item)) ?? []);
    },
  };
}

export const pinCaution: Check = {
  code: 'pin-caution',
  question: 'Are pins that the board uses itself suitable for what is connected to them?',
  messages: {
    fails: {
      title: '{pin} is not connected to the chip: {terminal}',
      text: 'As delivered: {note}.{until}',
      why: 'This header position is connected to something else, or to nothing, until a solder bridge is changed.',
    },
    setting: {
      title: '{pin} needs a configuration change: {terminal}',
      text: '{note}.{until}',
      why: 'After reset the pin has another function. The program, a fuse or a configuration word must release it first; the build sheet lists the step.',
    },
    'no-start': {
      title: '{pin} is used during start-up: {terminal} may prevent it',
      text: '{note}.{until}',
      why: 'The chip or its flash memory uses this pin during start-up. Whether a part disturbs it depends on the board revision and on the idle level of the line.',
    },
    contends: {
      title: '{pin} is a serial line of the board: contention with {terminal}',
      text: '{note}.{until}',
      why: 'The board uses this line for uploads or its console. A part that drives it blocks uploads, or two outputs drive one line.',
    },
    listens: {
      title: '{pin} carries console output: {terminal} receives it',
      text: '{note}.{until}',
      why: 'During uploads and console output this line toggles. The part interprets it as its own signal: a display shows garbage, a relay clicks.',
    },
    loads: {
      title: 'On-board LED at {pin} loads {terminal}',
      text: '{note}. Only a weak pull-up pulls this line high; the LED and its resistor draw more current than it supplies.',
      why: 'A switch or an open-drain output needs a pull-up. Against an internal pull-up of tens of kilohms, an LED with 1 kΩ to ground holds the line near VF, below VIH.',
    },
    lights: {
      title: 'On-board LED at {pin} lights with {terminal}',
      text: '{note}. The part must also drive the LED, a few milliamperes.',
      why: 'The LED and its resistor load the pin. A push-pull output drives them easily, a sensor with a weak output may not.',
    },
    pulled: {
      title: '{pin} has a fixed resistor on the board',
      text: '{note}. It loads {terminal}.',
      why: 'A fixed pull-up or pull-down loads every signal on the pin and sets the level of an open line.',
    },
    acts: {
      title: '{terminal} switches on during start-up ({pin})',
      text: '{note}.',
      why: 'From reset until the program configures the pin, the chip or its boot loader drives or pulls it. A relay, motor or buzzer on it reacts at every start.',
    },
    other: {
      title: '{pin} has another function on the board',
      text: '{note}.{until}',
      why: '{terminal} works on this pin, with the side effect given in the board sheet.',
    },
  },
  remedies: { move: 'Move {terminal} to {pin}', 'move-bus': 'Move the bus to {controller} ({pins})' },
  otherwise: 'Do what the finding says, then accept it with a note on how it was done.',
  examine: (context) =>
    context.terminals.flatMap((item) => {
      const pin = item.wire?.end.to === 'pin' ? context.board.pins.get(item.wire.end.pin) : undefined;
      if (!pin || item.placement.onBoard) return [];
      return pinTroubles(pin, item.part, item.terminal).map((trouble) => finding(context, item, pin.id, trouble));
    }),
};
