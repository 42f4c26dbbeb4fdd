import { firstLights, lightStep } from '../bench/firstLight';
import { pinTroubles } from '../assign/fit/pinUse';
import type { Component } from '../electrics/reports/components';
import { enablingOf } from '../electrics/reports/enabling';
import { tolerancesOf } from '../electrics/reports/tolerances';
import { planTerminals } from '../nets/terminals';
import { boardOf, type Edit } from '../plan/edit';
import { type Built, endKey, type Plan, sameEnd, splitKey, type TerminalKey, terminalKey, type WireEnd } from '../plan/plan';
import { partSheet, type Sheets } from '../sheets/sheetIndex';
import {
  type BuildCut,
  type BuildList,
  buildList,
  type BuildStrap,
  type BuildWire,
  wireStepId,
  type Joint,
  type OtherTerminal,
} from './buildList';
import { type ChipSupply, chipCircuitOf, type PlacedComponent, type PlacedConnector } from './chipCircuit';
import { endText } from './endText';
import { holeText, isSideBySide } from './holes/breadboard';
import { holePlan, type Jumper, type Lead, type PlacedItem } from './holes/holePlan';
import { holesOfComponent, holesValue, itemsToPlug, railWires, type StepHoles } from './holes/stepHoles';

/** What one step of the build is about. */
export type StepWhat =
  | { readonly is: 'safety' }
  /** A source beside the board's own. */
  | { readonly is: 'source'; readonly placement: string }
  /** A board or part that is plugged into the breadboard. */
  | { readonly is: 'side-by-side' }
  | { readonly is: 'plug'; readonly item: PlacedItem }
  /** A wire that feeds a rail of the breadboard, or links two pieces of it. */
  | { readonly is: 'rail-wire'; readonly wire: Jumper | Lead }
  | { readonly is: 'chip-supply'; readonly supply: ChipSupply }
  | { readonly is: 'chip-component'; readonly component: PlacedComponent }
  | { readonly is: 'chip-connector'; readonly connector: PlacedConnector }
  | { readonly is: 'chip-setting'; readonly chip: string; readonly words: string }
  | { readonly is: 'joint'; readonly joint: Joint }
  | { readonly is: 'wire'; readonly wire: BuildWire }
  | { readonly is: 'strap'; readonly strap: BuildStrap }
  | { readonly is: 'cut'; readonly cut: BuildCut }
  | { readonly is: 'component'; readonly component: Component }
  | { readonly is: 'idle'; readonly placement: string; readonly labels: readonly string[] }
  | { readonly is: 'others'; readonly placement: string; readonly terminals: readonly OtherTerminal[] }
  | { readonly is: 'enable'; readonly title: string; readonly words: string; readonly lines: readonly string[] }
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

export const SECTIONS = [
  'safety',
  'breadboard',
  'chip',
  'joints',
  'grounds',
  'supplies',
  'straps',
  'passives',
  'wires',
  'others',
  'enabling',
  'light',
] as const;
export interface BuildSection {
  readonly id: (typeof SECTIONS)[number];
  readonly steps: readonly BuildStep[];
}

function ownStep(plan: Plan, id: string, value: string, what: StepWhat): BuildStep {
  return { id, what, value, done: plan.steps[id] === value };
}

/** A step that is done in holes of a breadboard: done in others it is no longer done; without a breadboard, or marked before there was
 *  one, its holes do not matter. */
function stepInHoles(plan: Plan, id: string, made: string, holes: StepHoles | undefined, what: StepWhat): BuildStep {
  const at = holesValue(plan.breadboard, holes);
  const value = `${made}${at && IN}${at}`.slice(0, 120);
  const [wasMade, wasAt = ''] = plan.steps[id]?.split(IN) ?? [];
  return { id, what, value, done: wasMade === made.slice(0, 120) && (wasAt === '' || at === '' || plan.steps[id] === value) };
}

/** Between what was made and its holes, in the value of a step. */
const IN = ' in ';

/** A component as the value of its step: changed, it is no longer done. */
const componentValue = ({ value, transistor }: Component): string => (transistor ? transistor.kind : String(value));

const wireStep = (wire: BuildWire): BuildStep => ({
  id: wireStepId(wire.key),
  what: { is: 'wire', wire },
  value: wire.holes,
  done: wire.ticked,
});

/** The edits that mark a step of the build as done, or as not done. */
export function tickEdits(plan: Plan, { id, what, value }: BuildStep, done: boolean): readonly Edit[] {
  if (what.is !== 'wire') return [{ kind: 'step', step: id, done: done ? value : null }];
  const { key, end } = what.wire;
  const kept = done && value !== '' ? value : null;
  return [
    { kind: 'tick', ...splitKey(key), end: done ? end : null },
    ...(kept === (plan.steps[id] ?? null) ? [] : [{ kind: 'step' as const, step: id, done: kept }]),
  ];
}

function passives(plan: Plan, sheets: Sheets, list: BuildList): readonly BuildStep[] {
  return [
    ...list.cuts.map((cut) => ownStep(plan, `cut:${cut.placement}`, String(cut.ohms), { is: 'cut', cut })),
    ...list.components.map((component) =>
      stepInHoles(plan, `component:${component.id}`, componentValue(component), holesOfComponent(plan, sheets, component.id), {
        is: 'component',
        component,
      }),
    ),
    ...list.idle.map(({ placement, labels }) =>
      ownStep(plan, `idle:${placement}`, labels.join(' ').slice(0, 120), { is: 'idle', placement, labels }),
    ),
  ];
}

/** Labels as the value of a step. */
const labelsOf = (list: readonly { readonly label: string }[]): string =>
  list
    .map(({ label }) => label)
    .join(' ')
    .slice(0, 120);

/** The circuit of a bare chip: supplies, components, connectors; then its fuses or configuration bits. */
function chipSteps(plan: Plan, sheets: Sheets): { readonly circuit: readonly BuildStep[]; readonly settings: readonly BuildStep[] } {
  const board = boardOf(plan, sheets);
  const circuit = board && chipCircuitOf(plan, board);
  if (!circuit) return { circuit: [], settings: [] };
  return {
    circuit: [
      ...circuit.supplies.map((supply) =>
        ownStep(plan, `chip:${endKey(supply.end)}`, labelsOf(supply.pins), { is: 'chip-supply', supply }),
      ),
      ...circuit.components.map((component) =>
        ownStep(plan, `chip:${component.name}`, String(component.value), { is: 'chip-component', component }),
      ),
      ...circuit.connectors.map((connector) =>
        ownStep(plan, `chip:${connector.name}`, labelsOf(connector.pins), { is: 'chip-connector', connector }),
      ),
    ],
    settings: circuit.settings.map((words, n) =>
      ownStep(plan, `fuses:${n}`, words.slice(0, 120), { is: 'chip-setting', chip: board.sheet.chip, words }),
    ),
  };
}

/** How to enable the controllers of the plan in the operating system. */
function enabling(plan: Plan, sheets: Sheets): readonly BuildStep[] {
  const board = boardOf(plan, sheets);
  return (board ? enablingOf(plan, sheets, board) : []).map((enabled) => {
    const { id, title, words, lines } = enabled;
    // The lines are what was done: other words for them leave it done.
    return ownStep(plan, `enable:${id}`, (lines.join(' ') || words).slice(0, 120), { is: 'enable', title, words, lines });
  });
}

/** What must be done so that pins which the board uses for itself are free for what is wired to them; the same for several pins once. */
function settings(plan: Plan, sheets: Sheets): readonly BuildStep[] {
  const board = boardOf(plan, sheets);
  const pinsBy = new Map<string, string[]>();
  for (const { wire, part, terminal, placement } of planTerminals(plan, sheets)) {
    const pin = wire?.end.to === 'pin' && !placement.onBoard ? board?.pins.get(wire.end.pin) : undefined;
    if (!pin) continue;
    for (const { duty, effect } of pinTroubles(pin, part, terminal))
      if (duty.until && effect !== 'disturbs') pinsBy.set(duty.until, [...new Set([...(pinsBy.get(duty.until) ?? []), pin.id])]);
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

/** The sources of the plan that feed something: their order of switching on matters. */
function sources(plan: Plan, sheets: Sheets): readonly BuildStep[] {
  const used = new Set(Object.values(plan.wires).flatMap(({ end }) => (end.to === 'rail' ? [end.rail] : [])));
  return plan.placements.flatMap(({ id, sheet }) => {
    const given = partSheet(sheets, sheet)?.sheet.supplies?.list ?? [];
    return given.some(({ output, regulator }) => !regulator && used.has(terminalKey(id, output)))
      ? [ownStep(plan, `source:${id}`, 'done', { is: 'source', placement: id })]
      : [];
  });
}

/** A text as part of a step's id: a wire is known by its holes, so that another order of them leaves done what is done. */
const stepName = (text: string): string =>
  text
    .replaceAll('−', 'minus')
    .replace(/[^A-Za-z0-9+]+/g, '-')
    .slice(0, 120);

/** What is plugged in, and what feeds the rails. */
function breadboardSteps(plan: Plan, sheets: Sheets): readonly BuildStep[] {
  const holes = holePlan(plan, sheets);
  if (!holes) return [];
  const { breadboard } = holes;
  const text = (wire: Jumper | Lead) =>
    'from' in wire
      ? `${holeText(breadboard, wire.from)} to ${holeText(breadboard, wire.to)}`
      : `${wire.end.terminal} to ${wire.to.at === 'hole' ? holeText(breadboard, wire.to.hole) : wire.to.end.terminal}`;
  const { jumpers, leads } = railWires(plan, sheets);
  return [
    ...(isSideBySide(breadboard) ? [ownStep(plan, 'boards:side-by-side', 'done', { is: 'side-by-side' })] : []),
    ...itemsToPlug(holes).map((item) => ownStep(plan, `plug:${item.id}`, `${item.side} ${item.row}`, { is: 'plug', item })),
    ...[...jumpers, ...leads].map((wire) => ownStep(plan, `rail:${stepName(text(wire))}`, 'done', { is: 'rail-wire', wire })),
  ];
}

/** The whole build in the order to do it in: unpowered first, grounds before supplies, what is soldered before what is wired, and what to
 *  see at the end. Sections without a step are left out. Undefined where the board's sheet is gone. */
export function buildSheet(plan: Plan, sheets: Sheets): readonly BuildSection[] | undefined {
  const list = buildList(plan, sheets);
  if (!list) return undefined;
  const chip = chipSteps(plan, sheets);
  const isGround = (wire: BuildWire) => wire.end.to === 'ground';
  const lights = firstLights(plan, sheets).map(({ placement, see }) =>
    ownStep(plan, lightStep(placement), 'seen', { is: 'light', placement, see }),
  );
  const steps: { readonly [S in BuildSection['id']]: readonly BuildStep[] } = {
    safety: [ownStep(plan, 'safety:board', 'done', { is: 'safety' })],
    breadboard: breadboardSteps(plan, sheets),
    chip: chip.circuit,
    // On a breadboard its strips and rails are the junctions.
    joints: (plan.breadboard ? [] : list.joints).map((joint) =>
      ownStep(plan, `joint:${endKey(joint.end)}`, String(joint.wires), { is: 'joint', joint }),
    ),
    grounds: list.supplies.filter(isGround).map(wireStep),
    supplies: list.supplies.filter((wire) => !isGround(wire)).map(wireStep),
    straps: list.straps.map((strap) =>
      ownStep(plan, `strap:${strap.placement}:${strap.strap}`, strap.words.slice(0, 120), { is: 'strap', strap }),
    ),
    passives: passives(plan, sheets, list),
    wires: list.signals.map(wireStep),
    others: list.others.map(({ placement, terminals }) =>
      ownStep(plan, `others:${placement}`, labelsOf(terminals), { is: 'others', placement, terminals }),
    ),
    enabling: [...chip.settings, ...enabling(plan, sheets), ...settings(plan, sheets), ...tolerances(plan, sheets)],
    light: [ownStep(plan, 'safety:over', 'done', { is: 'look-over' }), ...sources(plan, sheets), ...lights],
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

/** The sheet of the part that a terminal is of. */
const partIdOf = (plan: Plan, key: TerminalKey): string | undefined =>
  plan.placements.find(({ id }) => id === splitKey(key).placement)?.sheet.id;

/** A plan as built, for later comparison.
 *  @param date the day, as 2026-11-26 */
export function builtNow(plan: Plan, sheets: Sheets, date: string): Built {
  const wires = ownWires(plan).map(([key, end]) => [
    key,
    { name: nameOf(plan, sheets, key).slice(0, 200), end, to: endText(plan, sheets, end).slice(0, 200), part: partIdOf(plan, key) },
  ]);
  return { date, wires: Object.fromEntries(wires) as Built['wires'] };
}

/** The wires to remove, move and add since the plan was last built, in that order. */
export function changesSinceBuilt(plan: Plan, sheets: Sheets): readonly BuiltChange[] {
  const { built } = plan;
  if (!built) return [];
  const now = new Map(ownWires(plan));
  const before = Object.entries(built.wires);
  // Another part under the same id has wires of its own.
  const isOther = (key: TerminalKey) => built.wires[key]?.part !== undefined && built.wires[key].part !== partIdOf(plan, key);
  const removed = before
    .filter(([key]) => !now.has(key) || isOther(key))
    .map(([key, { name, to }]): BuiltChange => ({ do: 'remove', key, name, from: to, to: undefined }));
  const moved = before.flatMap(([key, { end, to }]): BuiltChange[] => {
    const here = now.get(key);
    return here && !isOther(key) && !sameEnd(here, end)
      ? [{ do: 'move', key, name: nameOf(plan, sheets, key), from: to, to: endText(plan, sheets, here) }]
      : [];
  });
  const added = [...now].flatMap(([key, end]): BuiltChange[] =>
    built.wires[key] && !isOther(key)
      ? []
      : [{ do: 'add', key, name: nameOf(plan, sheets, key), from: undefined, to: endText(plan, sheets, end) }],
  );
  return [...removed, ...moved, ...added];
}
