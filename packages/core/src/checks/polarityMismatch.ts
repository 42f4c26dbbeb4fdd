import { partOf } from '../plan/edit';
import { type Driver, splitKey } from '../plan/plan';
import type { Check, CheckContext, FindingDraft } from './check';
import { lampPlace } from './lampParts';
import { isAnode, TRANSISTOR_WORDS } from './transistors';

const OTHER: { readonly [K in Driver['kind']]: Driver['kind'] } = { npn: 'pnp', pnp: 'npn', nmos: 'pmos', pmos: 'nmos' };

function examine(context: CheckContext, id: string): readonly FindingDraft[] {
  const { plan, sheets } = context;
  const part = partOf(plan, id, sheets);
  if (!part?.sheet.polarity?.common) return [];
  const anode = isAnode(context, id);
  const wrong = Object.entries(plan.drivers).filter(
    ([key, { kind }]) =>
      splitKey(key).placement === id && part.terminals.get(splitKey(key).terminal)?.digit && kind.startsWith('p') !== anode,
  );
  const [first] = wrong;
  if (!first) return [];
  const right = OTHER[first[1].kind];
  return [
    {
      level: 'clash',
      message: anode ? 'anode' : 'cathode',
      place: lampPlace(id),
      data: { placement: { is: 'placement', id }, transistor: { is: 'words', text: TRANSISTOR_WORDS[first[1].kind] } },
      source: part.sheet.polarity.source,
      remedies: () => [
        {
          label: 'exchange',
          data: { transistor: { is: 'words', text: TRANSISTOR_WORDS[right] } },
          grade: 'offered',
          edits: wrong.map(([key, driver]) => ({ kind: 'driver', ...splitKey(key), driver: { ...driver, kind: OTHER[driver.kind] } })),
        },
      ],
    },
  ];
}

const why =
  'With a common anode, current enters at the digit terminal and leaves at the segments, so the digit is switched to the supply; with a common cathode it is the other way round. The wrong transistor leaves the display dark or dim.';

export const polarityMismatch: Check = {
  code: 'polarity-mismatch',
  question: 'Does the transistor of every digit match its common terminal?',
  messages: {
    anode: {
      title: '{placement}: common anode with a low-side switch ({transistor})',
      text: 'A common anode needs a high-side switch.',
      why,
    },
    cathode: {
      title: '{placement}: common cathode with a high-side switch ({transistor})',
      text: 'A common cathode needs a low-side switch.',
      why,
    },
  },
  remedies: { exchange: 'Use a {transistor}' },
  examine: (context) => context.plan.placements.flatMap((placement) => examine(context, placement.id)),
};
