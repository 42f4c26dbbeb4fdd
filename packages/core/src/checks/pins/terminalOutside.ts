import { has, type With } from '../../collections/has';
import type { PlanTerminal } from '../../nets/terminals';
import type { WireEnd } from '../../plan/plan';
import type { Check, FindingDraft } from '../engine/check';
import { endDatum } from '../fixes/remedyParts';

/** A terminal that nothing is known about, and where it is wired on the board. */
interface Outside {
  readonly item: With<PlanTerminal, 'wire'>;
  readonly end: Exclude<WireEnd, { readonly to: 'terminal' }>;
}

function finding({ item: { key, placement, part, terminal, wire }, end }: Outside): FindingDraft {
  return {
    level: 'hint',
    message: end.to === 'pin' ? 'pin' : 'supply',
    place: { placements: [placement.id], terminals: [key], ...(end.to === 'pin' ? { pins: [end.pin] } : {}) },
    data: { terminal: { is: 'terminal', key }, to: endDatum(end) },
    source: part.terminals.source,
    remedies: () =>
      wire.locked || placement.onBoard
        ? []
        : [
            {
              label: 'unwire',
              data: { terminal: { is: 'terminal', key } },
              grade: 'offered',
              edits: [{ kind: 'unwire', placement: placement.id, terminal: terminal.id }],
            },
          ],
  };
}

const why =
  'Relay contacts, driver outputs, expander ports and measuring inputs carry whatever is connected to them. Their sheets give no levels or currents for it, so no check can compare them.';

export const terminalOutside: Check = {
  code: 'terminal-outside',
  question: 'Is every connection between the board and external circuits known to be unchecked?',
  messages: {
    pin: {
      title: '{terminal} on {to}: not checked',
      text: 'Verify its voltage and current against the limits of {to} yourself.',
      why,
    },
    supply: {
      title: '{terminal} on {to}: not checked',
      text: 'The current of whatever it switches comes from {to} and is not included in the rail totals.',
      why,
    },
  },
  remedies: { unwire: 'Disconnect {terminal}' },
  examine: ({ terminals }) =>
    terminals
      .filter(has('wire'))
      .flatMap((item): Outside[] => {
        const { terminal, wire, carries } = item;
        return terminal.role === 'external' && !carries && wire.end.to !== 'terminal' ? [{ item, end: wire.end }] : [];
      })
      .map(finding),
};
