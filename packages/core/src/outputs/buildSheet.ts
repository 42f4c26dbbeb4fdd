import { firstLights, lightStep } from '../bench/firstLight';
import { pinTroubles } from '../allocate/pinUse';
import { enablingOf } from '../electrics/enabling';
import { tolerancesOf } from '../electrics/tolerances';
import { planTerminals } from '../nets/terminals';
import { boardOf } from '../plan/edit';
import { type Built, type Driver, endKey, type Plan, sameEnd, type TerminalKey, type WireEnd } from '../plan/plan';
import { partSheet, type Sheets } from '../sheets/sheetIndex';
import {
  type BuildList,
  buildList,
  type BuildResistor,
  type BuildStrap,
  type BuildWire,
  type Joint,
  type OtherTerminal,
} from './buildList';
import { endText } from './endText';

/** What one step of the build is about. */
export type StepWhat =
  | { readonly is: 'safety' }
  | { readonly is: 'joint'; readonly joint: Joint }
  | { readonly is: 'wire'; readonly wire: BuildWire }
  | { readonly is: 'strap'; readonly strap: BuildStrap }
  | { readonly is: 'resistor'; readonly resistor: BuildResistor }
  | { readonly is: 'capacitor'; readonly placement: string; readonly farads: number; readonly at: string }
  | { readonly is: 'idle'; readonly placement: string; readonly labels: readonly string[] }
  | { readonly is: 'others'; readonly placement: string; readonly terminals: readonly OtherTerminal[] }
  | { readonly is: 'enable'; readonly controller: string; readonly words: string }
  | { readonly is: 'setting'; readonly pins: readonly string[]; readonly words: string }
  | { readonly is: 'tolerance'; readonly pins: readonly string[]; readonly volts: number; readonly unless: string }
  | { readonly is: 'look-over' }
  | { readonly is: 'light'; readonly placement: string; readonly see: string };

export interface BuildStep {
  /** Stable while the thing is: a wire by its terminal, others by kind and owner. */
  readonly id: string;
  readonly what: StepWhat;
  /** What is kept when it is ticked: a step that has become another is no longer done. */
  readonly value: string;
  readonly done: boolean;
}

export const SECTIONS = ['safety', 'joints', 'grounds', 'supplies', 'straps', 'passives', 'wires', 'others', 'enabling', 'light'] as const;
export interface BuildSection {
  readonly id: (typeof SECTIONS)[number];
  readonly steps: readonly BuildStep[];
}

function ownStep(plan: Plan, id: string, value: string, what: StepWhat): BuildStep {
  return { id, what, value, done: plan.steps[id] === value };
}

function resistorStep(plan: Plan, resistor: BuildResistor): BuildStep {
  const owner = 'key' in resistor ? resistor.key : 'segment' in resistor ? resistor.segment : resistor.placement;
  const { do: kind } = resistor;
  const value =
    resistor.do === 'ladder'
      ? [resistor.ladder.pull, ...resistor.ladder.row].join(' ')
      : resistor.do === 'driver'
        ? `${resistor.driver.kind} ${resistor.driver.ohms}`
        : String(resistor.ohms);
  return ownStep(plan, `resistor:${owner}:${kind}`, value.slice(0, 120), { is: 'resistor', resistor });
}

const wireStep = (wire: BuildWire): BuildStep => ({ id: `wire:${wire.key}`, what: { is: 'wire', wire }, value: '', done: wire.ticked });

function passives(plan: Plan, list: BuildList): readonly BuildStep[] {
  return [
    ...list.resistors.map((resistor) => resistorStep(plan, resistor)),
    ...list.capacitors.map(({ placement, farads, at }, n) =>
      ownStep(plan, `capacitor:${placement}:${n}`, String(farads), { is: 'capacitor', placement, farads, at }),
    ),
    ...list.idle.map(({ placement, labels }) =>
      ownStep(plan, `idle:${placement}`, labels.join(' ').slice(0, 120), { is: 'idle', placement, labels }),
    ),
  ];
}

/** How to enable the controllers of the plan in the operating system. */
function enabling(plan: Plan, sheets: Sheets): readonly BuildStep[] {
  const board = boardOf(plan, sheets);
  return (board ? enablingOf(plan, sheets, board) : []).map(({ controller, words }) =>
    ownStep(plan, `enable:${controller}`, words.slice(0, 120), { is: 'enable', controller, words }),
  );
}

/** What must be done so that pins which the board uses for itself are free for what is wired to them; the same for several pins once. */
function settings(plan: Plan, sheets: Sheets): readonly BuildStep[] {
  const board = boardOf(plan, sheets);
  const pinsBy = new Map<string, string[]>();
  for (const { wire, part, terminal, placement } of planTerminals(plan, sheets)) {
    const pin = wire?.end.to === 'pin' && !placement.onBoard ? board?.pins.get(wire.end.pin) : undefined;
    for (const { duty, effect } of pin ? pinTroubles(pin, part, terminal) : [])
      if (duty.until && effect !== 'disturbs') pinsBy.set(duty.until, [...new Set([...(pinsBy.get(duty.until) ?? []), pin!.id])]);
  }
  return [...pinsBy].map(([words, pins]) =>
    ownStep(plan, `setting:${pins.join('+')}`, words.slice(0, 120), { is: 'setting', pins, words }),
  );
}

/** On which condition pins take more than their supply: the program has to keep it. */
const tolerances = (plan: Plan, sheets: Sheets): readonly BuildStep[] =>
  tolerancesOf(plan, sheets).map(({ pins, volts, unless }) =>
    ownStep(plan, `tolerance:${pins[0]}`, pins.join(' ').slice(0, 120), { is: 'tolerance', pins, volts, unless }),
  );

/** The whole build in the order to do it in: unpowered first, grounds before supplies, what is soldered before what is wired, and what to
 *  see at the end. Sections without a step are left out. Undefined where the board's sheet is gone. */
export function buildSheet(plan: Plan, sheets: Sheets): readonly BuildSection[] | undefined {
  const list = buildList(plan, sheets);
  if (!list) return undefined;
  const isGround = (wire: BuildWire) => wire.end.to === 'ground';
  const lights = firstLights(plan, sheets).map(({ placement, see }) =>
    ownStep(plan, lightStep(placement), 'seen', { is: 'light', placement, see }),
  );
  const steps: { readonly [S in BuildSection['id']]: readonly BuildStep[] } = {
    safety: [ownStep(plan, 'safety:board', 'done', { is: 'safety' })],
    joints: list.joints.map((joint) => ownStep(plan, `joint:${endKey(joint.end)}`, String(joint.wires), { is: 'joint', joint })),
    grounds: list.supplies.filter(isGround).map(wireStep),
    supplies: list.supplies.filter((wire) => !isGround(wire)).map(wireStep),
    straps: list.straps.map((strap) =>
      ownStep(plan, `strap:${strap.placement}:${strap.strap}`, strap.words.slice(0, 120), { is: 'strap', strap }),
    ),
    passives: passives(plan, list),
    wires: list.signals.map(wireStep),
    others: list.others.map(({ placement, terminals }) =>
      ownStep(
        plan,
        `others:${placement}`,
        terminals
          .map(({ label }) => label)
          .join(' ')
          .slice(0, 120),
        { is: 'others', placement, terminals },
      ),
    ),
    enabling: [...enabling(plan, sheets), ...settings(plan, sheets), ...tolerances(plan, sheets)],
    light: [ownStep(plan, 'safety:over', 'done', { is: 'look-over' }), ...lights],
  };
  return SECTIONS.map((id) => ({ id, steps: steps[id] })).filter((section) => section.steps.length > 0);
}

/** A wire that is another one than when the plan was built. */
export interface BuiltChange {
  readonly do: 'remove' | 'move' | 'add';
  readonly key: TerminalKey;
  readonly name: string;
  readonly from: string | undefined;
  readonly to: string | undefined;
}

const nameOf = (plan: Plan, sheets: Sheets, key: TerminalKey): string => {
  const [placement, terminal] = key.split(':') as [string, string];
  const found = plan.placements.find((p) => p.id === placement);
  const label = found && partSheet(sheets, found.sheet)?.terminals.get(terminal)?.label;
  return `${found?.name ?? placement} ${label ?? terminal}`;
};

const ownWires = (plan: Plan): readonly [TerminalKey, WireEnd][] => {
  const soldered = new Set(plan.placements.filter((p) => p.onBoard).map((p) => p.id));
  return Object.entries(plan.wires).flatMap(([key, { end }]) => (soldered.has(key.slice(0, key.indexOf(':'))) ? [] : [[key, end]]));
};

/** A plan as built, for later comparison.
 *  @param date the day, as 2026-11-26 */
export function builtNow(plan: Plan, sheets: Sheets, date: string): Built {
  const wires = ownWires(plan).map(([key, end]) => [
    key,
    { name: nameOf(plan, sheets, key).slice(0, 200), end, to: endText(plan, sheets, end).slice(0, 200) },
  ]);
  return { date, wires: Object.fromEntries(wires) as Built['wires'] };
}

/** The wires to remove, move and add since the plan was last built, in that order. */
export function changesSinceBuilt(plan: Plan, sheets: Sheets): readonly BuiltChange[] {
  const { built } = plan;
  if (!built) return [];
  const now = new Map(ownWires(plan));
  const before = Object.entries(built.wires);
  const removed = before
    .filter(([key]) => !now.has(key))
    .map(([key, { name, to }]): BuiltChange => ({ do: 'remove', key, name, from: to, to: undefined }));
  const moved = before.flatMap(([key, { end, to }]): BuiltChange[] => {
    const here = now.get(key);
    return here && !sameEnd(here, end)
      ? [{ do: 'move', key, name: nameOf(plan, sheets, key), from: to, to: endText(plan, sheets, here) }]
      : [];
  });
  const added = [...now].flatMap(([key, end]): BuiltChange[] =>
    built.wires[key] ? [] : [{ do: 'add', key, name: nameOf(plan, sheets, key), from: undefined, to: endText(plan, sheets, end) }],
  );
  return [...removed, ...moved, ...added];
}

/** The bill of materials: parts, resistors, capacitors and transistors, identical ones counted. */
export interface Bill {
  readonly parts: readonly { readonly title: string; readonly count: number; readonly helper: boolean }[];
  readonly resistors: readonly { readonly ohms: number; readonly count: number }[];
  readonly capacitors: readonly { readonly farads: number; readonly count: number }[];
  readonly transistors: readonly { readonly kind: Driver['kind']; readonly count: number }[];
}

function counted<T>(items: readonly T[]): readonly (readonly [T, number])[] {
  const counts = new Map<T, number>();
  for (const item of items) counts.set(item, (counts.get(item) ?? 0) + 1);
  return [...counts];
}

/** Resistors of one list entry. */
function ohmsOf(resistor: BuildResistor): readonly number[] {
  if (resistor.do === 'cut') return [];
  if (resistor.do === 'ladder') return [resistor.ladder.pull, ...resistor.ladder.row];
  if (resistor.do === 'driver') return [resistor.driver.ohms];
  // One for each of the two lines.
  return resistor.do === 'add' ? [resistor.ohms, resistor.ohms] : [resistor.ohms];
}

/** The bill of a plan; undefined where the board's sheet is gone. */
export function billOf(plan: Plan, sheets: Sheets): Bill | undefined {
  const list = buildList(plan, sheets);
  if (!list) return undefined;
  const parts = plan.placements.flatMap((p) => (p.onBoard ? [] : (partSheet(sheets, p.sheet)?.sheet ?? [])));
  return {
    parts: counted(parts).map(([part, count]) => ({ title: part.title, count, helper: part.family === 'helper' })),
    resistors: counted(list.resistors.flatMap(ohmsOf))
      .map(([ohms, count]) => ({ ohms, count }))
      .toSorted((a, b) => a.ohms - b.ohms),
    capacitors: counted(list.capacitors.map((one) => one.farads))
      .map(([farads, count]) => ({ farads, count }))
      .toSorted((a, b) => a.farads - b.farads),
    transistors: counted(list.resistors.flatMap((one) => (one.do === 'driver' ? [one.driver.kind] : []))).map(([kind, count]) => ({
      kind,
      count,
    })),
  };
}
