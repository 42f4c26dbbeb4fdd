import { commonsOf, driverAt, segmentsOfPart } from '../../nets/multiplexed';
import { partOf, partOrThrow } from '../../plan/edit';
import { type Driver, splitKey, terminalKey } from '../../plan/plan';
import type { IndexedPart } from '../../sheets/sheetIndex';
import type { Check, CheckContext, FindingDraft } from '../engine/check';
import { ledPlace } from '../fixes/ledFixes';
import { isAnode } from '../../electrics/reports/transistorFor';
import { TRANSISTOR_WORDS } from '../fixes/transistors';

const OTHER: { readonly [K in Driver['kind']]: Driver['kind'] } = { npn: 'pnp', pnp: 'npn', nmos: 'pmos', pmos: 'nmos' };

/** A driver chip whose digit outputs are for the other common. */
function onDriver({ plan, sheets }: CheckContext, id: string): readonly FindingDraft[] {
  const part = partOrThrow(plan, id, sheets).sheet;
  const common = part.polarity?.common;
  if (common === undefined) return [];
  const lines = [...segmentsOfPart(part), ...commonsOf(part)].map((t) => terminalKey(id, t.id));
  const drivers = new Set(lines.flatMap((key) => driverAt(plan, sheets, key)?.driver ?? []));
  return [...drivers].flatMap((driver): FindingDraft[] => {
    const { multiplex } = partOrThrow(plan, driver, sheets).sheet;
    if (!multiplex || multiplex.common === common) return [];
    return [
      {
        level: 'clash',
        message: 'driver',
        place: ledPlace(id),
        data: {
          placement: { is: 'placement', id },
          driver: { is: 'placement', id: driver },
          common: { is: 'words', text: common },
          needed: { is: 'words', text: multiplex.common },
        },
        source: multiplex.source,
        remedies: () => [],
      },
    ];
  });
}

function examine(context: CheckContext, id: string): readonly FindingDraft[] {
  const { plan, sheets } = context;
  const part = partOf(plan, id, sheets);
  if (!part?.sheet.polarity?.common) return [];
  return [...onDriver(context, id), ...withTransistors(context, id, part)];
}

function withTransistors(context: CheckContext, id: string, part: IndexedPart): readonly FindingDraft[] {
  const { plan } = context;
  const { polarity } = part.sheet;
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
      place: ledPlace(id),
      data: { placement: { is: 'placement', id }, transistor: { is: 'words', text: TRANSISTOR_WORDS[first[1].kind] } },
      ...(polarity ? { source: polarity.source } : {}),
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
  question: 'Does what switches every digit match its common terminal?',
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
    driver: {
      title: '{placement}: common {common} on {driver}, which drives common {needed}',
      text: 'Its LEDs are reverse-biased there and stay dark. Use the common-{needed} version of the display.',
      why: 'The segment outputs of the driver source current and its digit outputs sink it, or the other way round: LEDs conduct in one direction only.',
    },
  },
  remedies: { exchange: 'Use a {transistor}' },
  examine: (context) => context.plan.placements.flatMap((placement) => examine(context, placement.id)),
};
