import { orThrow } from '../../collections/orThrow';
import { unlikePwm } from '../../assign/model/sharedResources';
import type { PlanTerminal } from '../../nets/terminals';
import type { Check, CheckContext, FindingDraft } from '../engine/check';
import { pwmBySoftware, SOFTWARE_PWM } from '../fixes/pwmBySoftware';
import { resourceUsers, type ResourcePair, type ResourceUser, moveApart, pairsOn } from './sharedResources';

/** Whether a terminal with these resources would share a channel with another, or a timer at another frequency. */
function meets(item: PlanTerminal, resources: readonly string[], other: ResourceUser): boolean {
  return resources.some((id) => other.resources.includes(id) && (id.startsWith('channel ') || unlikePwm([item], [other.item])));
}

function draft(context: CheckContext, all: readonly ResourceUser[], message: string, pair: ResourcePair): FindingDraft {
  const [a, b] = pair.users;
  return {
    level: 'clash',
    message,
    place: { pins: [a.pin.id, b.pin.id], terminals: [a.item.key, b.item.key] },
    data: {
      terminals: { is: 'terminals', keys: [a.item.key, b.item.key] },
      pins: { is: 'pins', pins: [a.pin.id, b.pin.id] },
      timer: { is: 'words', text: orThrow(a.pin.pwm, 'timer at the pin').timer },
    },
    source: context.board.sheet.pins.source,
    remedies: () => [...moveApart(context, all, pair, meets), ...[b, a].flatMap(({ item }) => pwmBySoftware(context, [item])).slice(0, 1)],
  };
}

export const timerShared: Check = {
  code: 'timer-shared',
  question: 'Does every PWM output have its own channel, and a timer with its frequency?',
  planWide: true,
  messages: {
    channel: {
      title: '{terminals} share one PWM channel',
      text: '{pins} are the same channel of {timer} and always have the same duty cycle.',
      why: 'A timer channel has one duty cycle for all its pins.',
    },
    frequency: {
      title: '{terminals} need different frequencies from one timer',
      text: '{pins} belong to {timer}, which has one frequency for all channels.',
      why: 'The PWM frequency ranges of the parts do not overlap, and a timer has one frequency.',
    },
  },
  remedies: { move: 'Move {terminal} to {pin}', 'software-pwm': SOFTWARE_PWM },
  examine(context) {
    const users = resourceUsers(context);
    const channels = pairsOn(users, 'channel');
    const known = new Set(channels.map(({ users: [a, b] }) => `${a.item.key} ${b.item.key}`));
    const timers = pairsOn(users, 'timer').filter(
      ({ users: [a, b] }) => !known.has(`${a.item.key} ${b.item.key}`) && unlikePwm([a.item], [b.item]),
    );
    return [
      ...channels.map((pair) => draft(context, users, 'channel', pair)),
      ...timers.map((pair) => draft(context, users, 'frequency', pair)),
    ];
  },
};
