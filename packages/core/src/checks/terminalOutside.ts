import type { PlanTerminal } from '../nets/terminals';
import type { WireEnd } from '../plan/plan';
import type { Check, FindingDraft } from './check';
import { endDatum } from './remedyParts';

/** A terminal that nothing is known about, and where it is wired on the board. */
interface Outside {
  readonly item: PlanTerminal;
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
      wire!.locked || placement.onBoard
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
  'Contacts of relays, outputs of drivers, ports of expanders and inputs for measuring carry what the builder hangs on them. Their sheets have no levels or currents for the board’s side, so no check compares them.';

export const terminalOutside: Check = {
  code: 'terminal-outside',
  question: 'Does a wire of the board end at a terminal that no check knows anything about?',
  messages: {
    pin: {
      title: '{terminal} on {to}: nothing is checked there',
      text: 'Compare for yourself what it brings with what {to} takes, in volts and in milliamperes.',
      why,
    },
    supply: {
      title: '{terminal} on {to}: nothing is checked there',
      text: 'Whatever it leads to takes its current from {to}; it is not counted in Supply.',
      why,
    },
  },
  remedies: { unwire: 'Take the wire off {terminal}' },
  examine: ({ terminals }) =>
    terminals
      .flatMap((item): Outside[] => {
        const { terminal, wire, carries } = item;
        return terminal.need === 'outside' && !carries && wire && wire.end.to !== 'terminal' ? [{ item, end: wire.end }] : [];
      })
      .map(finding),
};
