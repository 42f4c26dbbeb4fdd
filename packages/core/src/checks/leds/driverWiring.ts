import { findOrThrow } from '../../collections/orThrow';
import { ontoDriver } from '../../assign/ontoDriver';
import { canMultiplex, commonsOf, driverAt, multiplexedLeds, segmentsOfPart } from '../../nets/multiplexed';
import { partOf } from '../../plan/edit';
import { type Placement, splitKey, type TerminalKey, terminalKey } from '../../plan/plan';
import type { Check, CheckContext, FindingDraft, Remedy } from '../engine/check';

/** Puts the whole part on the driver, where it has room. */
function remedies({ plan, sheets }: CheckContext, placement: Placement, driver: string): readonly Remedy[] {
  const chip = findOrThrow(plan.placements, (p) => p.id === driver);
  const onto = ontoDriver(plan, sheets, placement, chip);
  if (placement.onBoard || !onto.ok) return [];
  const data = { placement: { is: 'placement', id: placement.id }, driver: { is: 'placement', id: driver } } as const;
  return [{ label: 'onto', data, grade: 'offered', edits: onto.edits }];
}

/** Lines of a part that are not where the rest of it is: every one must be at an output of one driver. */
function split(context: CheckContext, placement: Placement): readonly FindingDraft[] {
  const { plan, sheets, nets } = context;
  const part = partOf(plan, placement.id, sheets)?.sheet;
  if (!part?.polarity) return [];
  const keyOf = (t: { readonly id: string }): TerminalKey => terminalKey(placement.id, t.id);
  const segments = segmentsOfPart(part).map(keyOf);
  const commons = commonsOf(part).map(keyOf);
  const at = new Map([...segments, ...commons].map((key) => [key, driverAt(plan, sheets, key)]));
  const first = [...at.values()].find(Boolean);
  const chip = first && partOf(plan, first.driver, sheets)?.sheet;
  // The other polarity is another finding: nothing here would mend it.
  if (!first || !chip || !canMultiplex(chip, part)) return [];
  const isRight = (key: TerminalKey): boolean => {
    const output = at.get(key);
    return output?.driver === first.driver && output.is === (segments.includes(key) ? 'segment' : 'digit');
  };
  // Lines without any wire are reported as unconnected; further commons of a digit are joined on the part.
  const wrong = [...segments, ...commons].filter((key) => nets.byTerminal.has(key) && !isRight(key));
  if (wrong.length === 0) return [];
  return [
    {
      level: 'clash',
      message: 'split',
      place: { placements: [placement.id, first.driver], terminals: wrong },
      data: {
        placement: { is: 'placement', id: placement.id },
        driver: { is: 'placement', id: first.driver },
        terminals: { is: 'labels', keys: wrong },
      },
      ...(chip.multiplex ? { source: chip.multiplex.source } : {}),
      remedies: () => remedies(context, placement, first.driver),
    },
  ];
}

/** LEDs of different lines that one pair of outputs lights. */
function duplicates(context: CheckContext): readonly FindingDraft[] {
  const { plan, sheets } = context;
  const byPair = new Map<string, { readonly driver: string; readonly keys: Set<TerminalKey>; readonly parts: Set<string> }>();
  for (const { key, common, driver, segment, digit } of multiplexedLeds(plan, sheets)) {
    const pair = `${driver} ${segment} ${digit}`;
    const known = byPair.get(pair) ?? { driver, keys: new Set(), parts: new Set() };
    known.keys.add(`${key} ${common}`);
    known.parts.add(splitKey(key).placement);
    byPair.set(pair, known);
  }
  const reported = new Set<string>();
  return [...byPair.values()].flatMap(({ driver, keys, parts }): FindingDraft[] => {
    const ids = [...parts];
    if (keys.size < 2 || reported.has(`${driver} ${ids.join()}`)) return [];
    reported.add(`${driver} ${ids.join()}`);
    const last = findOrThrow(plan.placements, (p) => p.id === ids.at(-1));
    const source = partOf(plan, driver, sheets)?.sheet.multiplex?.source;
    return [
      {
        level: 'risk',
        message: ids.length > 1 ? 'together' : 'doubled',
        place: { placements: [...ids, driver] },
        data: {
          placements: { is: 'placements', ids },
          placement: { is: 'placement', id: last.id },
          driver: { is: 'placement', id: driver },
        },
        ...(source ? { source } : {}),
        remedies: () => remedies(context, last, driver),
      },
    ];
  });
}

const why =
  'A driver feeds the segment outputs of one digit after another and selects the digit by its digit output: an LED lights where both of its lines are at that driver.';

export const driverWiring: Check = {
  code: 'driver-wiring',
  question: 'Is every LED on a driver chip at one segment output and one digit output of that driver?',
  messages: {
    split: {
      title: '{placement}: {terminals} not at the outputs of {driver}',
      text: 'Segments belong at segment outputs, commons at digit outputs, all of one driver.',
      why,
    },
    together: { title: '{placements} light together on {driver}', text: 'They are at the same segment and digit outputs.', why },
    doubled: { title: '{placement}: two segments at one output of {driver}', text: 'They light together.', why },
  },
  remedies: { onto: 'Put {placement} on {driver}' },
  planWide: true,
  examine: (context) => {
    const { plan, sheets } = context;
    const hasDriver = plan.placements.some(({ id }) => partOf(plan, id, sheets)?.sheet.multiplex);
    return hasDriver ? [...plan.placements.flatMap((placement) => split(context, placement)), ...duplicates(context)] : [];
  },
};
