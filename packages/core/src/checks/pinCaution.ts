import { isCautionFor, pinTroubles, type PinTrouble } from '../allocate/pinUse';
import { capitalised } from '../quantity/format';
import type { PlanTerminal } from '../nets/terminals';
import type { Plan } from '../plan/plan';
import type { Check, CheckContext, FindingDraft, Level } from './check';
import { moveBus, moveWhere } from './remedyParts';

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
  question: 'Is every pin that the board uses for something of its own free for what is wired to it?',
  messages: {
    fails: {
      title: '{terminal} does not reach the chip at {pin}',
      text: 'As the board is delivered: {note}.{until}',
      why: 'The board connects this position to something else, or to nothing, until it is changed with a soldering iron.',
    },
    setting: {
      title: '{terminal} at {pin} works only after a change of settings',
      text: '{note}.{until}',
      why: 'After reset the chip uses this pin for itself. The program, a fuse or a configuration word must release it first; the build sheet lists the step.',
    },
    'no-start': {
      title: '{terminal} at {pin} may keep the board from starting',
      text: '{note}.{until}',
      why: 'The chip or its memory needs this pin while it starts. Whether it does depends on the revision of the board or on how the line rests.',
    },
    contends: {
      title: '{terminal} shares {pin} with a serial port of the board',
      text: '{note}.{until}',
      why: 'The board loads programs or prints over this line. What the part drives onto it gets between: programs do not load, or two outputs drive one line.',
    },
    listens: {
      title: '{terminal} gets what the board sends at {pin}',
      text: '{note}.{until}',
      why: 'While a program is loaded or prints, this line carries characters. The part takes them for its own signal: a display shows garbage, a relay clicks.',
    },
    loads: {
      title: 'The LED at {pin} keeps {terminal} from going high',
      text: '{note}. Only a weak pull-up brings this line high, and the LED with its resistor takes more current than that gives.',
      why: 'A switch or an open-drain output needs a pull-up. The internal one of the chip is some ten kilohms; an LED to ground with a kilohm holds the line near its forward voltage, below what the chip reads as high.',
    },
    lights: {
      title: 'The LED at {pin} lights with {terminal}',
      text: '{note}. The part drives it, too: a few milliamperes.',
      why: 'The LED and its resistor hang at the pin whatever it is used for. An output with a transistor to both sides drives them easily; a sensor with a weak output may not.',
    },
    pulled: {
      title: '{pin} has a resistor on the board',
      text: '{note}. {terminal} has to work against it.',
      why: 'A resistor that the board needs for its bus loads every other signal, and holds an open line high or low.',
    },
    acts: {
      title: '{terminal} at {pin} goes on while the board starts',
      text: '{note}.',
      why: 'From reset until the program sets the pin, the chip or its loader gives it a level. What hangs there switches, moves or sounds at every start.',
    },
    other: {
      title: '{pin} has a use of its own on the board',
      text: '{note}.{until}',
      why: 'The pin works for {terminal}, with the side effect that the board sheet states.',
    },
  },
  remedies: { move: 'Move {terminal} to {pin}', 'move-bus': 'Use {controller} on {pins}' },
  otherwise: 'Do what the finding says, then accept it with a word on how it was done.',
  examine: (context) =>
    context.terminals.flatMap((item) => {
      const pin = item.wire?.end.to === 'pin' ? context.board.pins.get(item.wire.end.pin) : undefined;
      if (!pin || item.placement.onBoard) return [];
      return pinTroubles(pin, item.part, item.terminal).map((trouble) => finding(context, item, pin.id, trouble));
    }),
};
