import type { PlanContext } from '../../plan/planContext';
import { findBuses } from '../../nets/buses';
import { memoizeByPair } from '../../memo/memoizeByPair';
import { logicSupply } from '../../nets/feedRail';
import { type Segment, segmentsOf } from '../../nets/segments';
import { type PlanTerminal, terminalsOf } from '../../nets/terminals';
import { boardOf, type Edit, partOf } from '../../plan/edit';
import { firstFree } from '../../plan/newPlacement';
import { type Driver, type Placement, type Plan, type TerminalKey, terminalKey, type WireEnd } from '../../plan/plan';
import { PIN_ROLES } from '../../sheets/roles';
import { type IndexedBoard, partSheet, type Sheets } from '../../sheets/sheetIndex';
import { feedOf, pullFeed } from './busInputs';
import { type WantedCapacitors, wantedCapacitors } from './railReport';

/** What an end of a component is soldered or plugged to: a place on the board, a terminal of a part, or a leg of another component. */
export type ComponentPoint =
  | Exclude<WireEnd, { readonly to: 'trimmer' } | { readonly to: 'divider' }>
  | { readonly to: 'component'; readonly id: string; readonly leg?: ComponentLeg }
  /** A key of a resistor ladder, from 1, on the side away from the others. */
  | { readonly to: 'key'; readonly placement: string; readonly key: number };

export type ComponentLeg = 'wiper' | 'anode' | 'cathode' | 'base' | 'emitter' | 'collector' | 'gate' | 'source' | 'drain';

/** What a component is there for: `top` and `bottom` are the two of a fixed divider, `base` the resistor of a `transistor`, `bus` a pull-up of
 *  an I2C line. */
export type ComponentRole =
  'series' | 'pull' | 'base' | 'transistor' | 'diode' | 'trimmer' | 'top' | 'bottom' | 'ladder' | 'capacitor' | 'bus';

/** Whether a component sets the voltage of its terminal: a trimmer, or one of a fixed divider. */
export const isDivider = ({ role }: Pick<Component, 'role'>): boolean => role === 'trimmer' || role === 'top' || role === 'bottom';

export interface ComponentEnd {
  /** Absent for a component whose two ends are alike. */
  readonly leg?: ComponentLeg;
  readonly at: ComponentPoint;
}

/** A resistor, trimmer, capacitor or transistor that is added to the parts. */
export interface Component {
  /** `OWNER:ROLE.WHAT`: the part or bus segment, what the component is there, and the terminal, line or number. */
  readonly id: string;
  readonly role: ComponentRole;
  /** Reference designator, such as R1. */
  readonly name: string;
  readonly kind: 'resistor' | 'trimmer' | 'capacitor' | 'transistor' | 'diode';
  /** In ohms or farads; undefined for a transistor or diode. */
  readonly value: number | undefined;
  readonly transistor?: Driver;
  readonly ends: readonly ComponentEnd[];
  /** The terminal or the part that it belongs to; neither for a pull-up of a bus. */
  readonly key?: TerminalKey;
  readonly placement?: string;
  /** Where a capacitor goes, in words of the sheet. */
  readonly near?: string;
  /** An electrolytic capacitor: its first end is the plus leg. */
  readonly polar?: true;
}

type Draft = Omit<Component, 'name'>;

/** The end of a wire as a point; a divider belongs to its own terminal. */
const pointOf = (end: WireEnd | undefined): Exclude<WireEnd, { readonly to: 'trimmer' } | { readonly to: 'divider' }> | undefined =>
  end?.to === 'trimmer' || end?.to === 'divider' ? undefined : end;

const LETTERS: { readonly [K in Component['kind']]: string } = {
  resistor: 'R',
  trimmer: 'RV',
  capacitor: 'C',
  transistor: 'Q',
  diode: 'D',
};

/** The legs of a transistor: which is switched by the pin, which goes to ground or the supply, which to the load. */
export function legsOf(kind: Driver['kind']): readonly [ComponentLeg, ComponentLeg, ComponentLeg] {
  return kind.endsWith('mos') ? ['gate', 'source', 'drain'] : ['base', 'emitter', 'collector'];
}

const isHighSide = (kind: Driver['kind']): boolean => kind === 'pnp' || kind === 'pmos';

/** The resistor in a wire: between the terminal and where the wire goes on, or its transistor; of a current-setting terminal, which has no
 *  wire, between it and the supply terminal of its part. */
function seriesDraft(plan: Plan, item: PlanTerminal, own: ComponentPoint, load: ComponentPoint | undefined): readonly Draft[] {
  const ohms = plan.series[item.key];
  if (ohms === undefined) return [];
  const { part, placement, terminal, key } = item;
  const supply = part.currentSet?.terminal === terminal.id ? logicSupply(part) : undefined;
  const far = supply ? ({ to: 'terminal', placement: placement.id, terminal: supply.id } as const) : load;
  return [
    {
      id: `${placement.id}:series.${terminal.id}`,
      role: 'series',
      kind: 'resistor',
      value: ohms,
      key,
      ends: [{ at: own }, ...(far ? [{ at: far }] : [])],
    },
  ];
}

function dividerDrafts({ placement, part, terminal, key }: PlanTerminal, end: WireEnd, own: ComponentPoint): readonly Draft[] {
  const supply = logicSupply(part);
  const top: ComponentPoint | undefined = supply && { to: 'terminal', placement: placement.id, terminal: supply.id };
  const upper = top ? [{ at: top }] : [];
  const at = (role: string) => `${placement.id}:${role}.${terminal.id}`;
  const bottom: ComponentEnd = { at: { to: 'ground' } };
  if (end.to === 'trimmer') {
    const ends: readonly ComponentEnd[] = [...upper, bottom, { leg: 'wiper', at: own }];
    return [{ id: at('trimmer'), role: 'trimmer', kind: 'trimmer', value: end.ohms, key, ends }];
  }
  if (end.to !== 'divider') return [];
  return [
    { id: at('top'), role: 'top', kind: 'resistor', value: end.topOhms, key, ends: [...upper, { at: own }] },
    { id: at('bottom'), role: 'bottom', kind: 'resistor', value: end.bottomOhms, key, ends: [{ at: own }, bottom] },
  ];
}

function driverDrafts({ plan, sheets, board }: PlanContext, item: PlanTerminal, onward: ComponentPoint): readonly Draft[] {
  const { key, placement, terminal, wire } = item;
  const driver = plan.drivers[key];
  if (!driver) return [];
  const [control, common, load] = legsOf(driver.kind);
  const [resistor, transistor] = [`${placement.id}:base.${terminal.id}`, `${placement.id}:transistor.${terminal.id}`];
  const end = pointOf(wire?.end);
  const pin = end ? [{ at: end }] : [];
  // The load of a part without a supply of its own lies at that of the output which drives it.
  const fed = end?.to === 'terminal' ? feedOf(plan, sheets, board, end.placement).rail : undefined;
  const rail = feedOf(plan, sheets, board, placement.id).rail ?? fed ?? board.sheet.logicRail;
  return [
    {
      id: transistor,
      role: 'transistor',
      kind: 'transistor',
      value: undefined,
      transistor: driver,
      key,
      ends: [
        { leg: control, at: { to: 'component', id: resistor } },
        { leg: common, at: isHighSide(driver.kind) ? { to: 'rail', rail } : { to: 'ground' } },
        { leg: load, at: onward },
      ],
    },
    {
      id: resistor,
      role: 'base',
      kind: 'resistor',
      value: driver.ohms,
      key,
      ends: [...pin, { at: { to: 'component', id: transistor, leg: control } }],
    },
  ];
}

/** A pull-up or pull-down: at the terminal, or where there is a resistor in its wire too on the far side of that. */
function pullDraft(plan: Plan, sheets: Sheets, { key, placement, terminal, wire }: PlanTerminal, own: ComponentPoint): readonly Draft[] {
  const pull = plan.pulls[key];
  if (!pull) return [];
  const line = (plan.series[key] === undefined ? undefined : pointOf(wire?.end)) ?? own;
  const rail = pull.to === 'supply' ? pullFeed(plan, sheets, key)?.rail : undefined;
  const far: readonly ComponentEnd[] =
    pull.to === 'ground' ? [{ at: { to: 'ground' } }] : rail === undefined ? [] : [{ at: { to: 'rail', rail } }];
  return [
    { id: `${placement.id}:pull.${terminal.id}`, role: 'pull', kind: 'resistor', value: pull.ohms, key, ends: [{ at: line }, ...far] },
  ];
}

/** The diode beside a coil, which takes its current when it is switched off; outputs with clamp diodes of their own need none. */
function diodeDraft(plan: Plan, sheets: Sheets, { key, placement, terminal, wire }: PlanTerminal): readonly Draft[] {
  if (!terminal.coil || !wire || isClamped(plan, sheets, wire.end)) return [];
  const at = (id: string): ComponentPoint => ({ to: 'terminal', placement: placement.id, terminal: id });
  const ends: readonly ComponentEnd[] = [
    { leg: 'cathode', at: at(terminal.coil.other) },
    { leg: 'anode', at: at(terminal.id) },
  ];
  return [{ id: `${placement.id}:diode.${terminal.id}`, role: 'diode', kind: 'diode', value: undefined, key, ends }];
}

/** Whether a wire ends at an output whose clamp diodes are wired. */
function isClamped(plan: Plan, sheets: Sheets, end: WireEnd): boolean {
  const switchPart = end.to === 'terminal' ? partOf(plan, end.placement, sheets)?.sheet.sinks : undefined;
  return end.to === 'terminal' && switchPart?.clamp !== undefined && plan.wires[terminalKey(end.placement, switchPart.clamp)] !== undefined;
}

function atTerminal(plan: Plan, sheets: Sheets, board: IndexedBoard, item: PlanTerminal): readonly Draft[] {
  const { key, placement, terminal, wire } = item;
  const own: ComponentPoint = { to: 'terminal', placement: placement.id, terminal: terminal.id };
  const driver = plan.drivers[key];
  const onward: ComponentPoint | undefined = driver
    ? { to: 'component', id: `${placement.id}:transistor.${terminal.id}`, leg: legsOf(driver.kind)[2] }
    : pointOf(wire?.end);
  const load: ComponentPoint = plan.series[key] === undefined ? own : { to: 'component', id: `${placement.id}:series.${terminal.id}` };
  return [
    ...(wire ? dividerDrafts(item, wire.end, own) : []),
    ...driverDrafts({ plan, sheets, board }, item, load),
    ...seriesDraft(plan, item, own, onward),
    ...pullDraft(plan, sheets, item, own),
    ...diodeDraft(plan, sheets, item),
  ];
}

/** The resistors of keys on one analog pin: one that holds the pin, then those between the keys. */
function ladderDrafts(plan: Plan, sheets: Sheets, board: IndexedBoard, { id, sheet }: Placement): readonly Draft[] {
  const ladder = plan.ladders[id];
  const part = ladder && partSheet(sheets, sheet)?.sheet;
  const keys = part?.keys;
  const pin = keys?.as === 'ladder' ? part?.terminals.list.find((t) => t.role === 'adc.in') : undefined;
  if (!ladder || !keys || !pin) return [];
  const own: ComponentPoint = { to: 'terminal', placement: id, terminal: pin.id };
  const rail = feedOf(plan, sheets, board, id).rail ?? board.sheet.logicRail;
  const rest: ComponentPoint = keys.leadTo === 'supply' ? { to: 'ground' } : { to: 'rail', rail };
  const key = (n: number): ComponentPoint => ({ to: 'key', placement: id, key: n });
  return [
    { id: `${id}:ladder.0`, role: 'ladder', kind: 'resistor', value: ladder.pull, placement: id, ends: [{ at: own }, { at: rest }] },
    ...ladder.row.map((ohms, at): Draft => ({
      id: `${id}:ladder.${at + 1}`,
      role: 'ladder',
      kind: 'resistor',
      value: ohms,
      placement: id,
      ends: [{ at: key(at + 1) }, { at: key(at + 2) }],
    })),
  ];
}

/** From this value on capacitors are usually electrolytic. */
const ELECTROLYTIC_FARADS = 2.2e-6;

/** Capacitors go between the supply of their part and ground. */
function capacitorDrafts(sheets: Sheets, { id, sheet }: Placement, wanted: WantedCapacitors | undefined): readonly Draft[] {
  const part = partSheet(sheets, sheet)?.sheet;
  const supply = part && logicSupply(part);
  const ground = part?.terminals.list.find((t) => t.role === 'ground');
  if (!wanted?.there || !supply) return [];
  const at = (terminal: string): ComponentEnd => ({ at: { to: 'terminal', placement: id, terminal } });
  return wanted.list.map(({ farads, at: near, terminal = supply.id }, n): Draft => ({
    id: `${id}:capacitor.${n}`,
    role: 'capacitor',
    kind: 'capacitor',
    value: farads,
    placement: id,
    near,
    ...(farads >= ELECTROLYTIC_FARADS ? { polar: true as const } : {}),
    ends: [at(terminal), ground ? at(ground.id) : { at: { to: 'ground' } }],
  }));
}

/** The line of a segment at one of its parts. */
function lineAt(plan: Plan, sheets: Sheets, { members, via }: Segment, line: 'sda' | 'scl'): ComponentPoint | undefined {
  for (const member of members) {
    const item = terminalsOf(plan, member, sheets).find((t) => PIN_ROLES[t.terminal.role]?.line?.line === line);
    if (item) return { to: 'terminal', placement: member.id, terminal: item.terminal.id };
  }
  if (!via) return undefined;
  const channel = terminalsOf(plan, via.placement, sheets).find(
    ({ terminal: { channel } }) => channel !== undefined && channel.number === via.channel && channel.line === line,
  );
  return channel && { to: 'terminal', placement: via.placement.id, terminal: channel.terminal.id };
}

function busDrafts(plan: Plan, sheets: Sheets, board: IndexedBoard): readonly Draft[] {
  return findBuses(plan, sheets).flatMap((bus) =>
    bus.kind !== 'i2c' || bus.controller === undefined
      ? []
      : segmentsOf(plan, sheets, bus).flatMap((segment): Draft[] => {
          const ohms = plan.busSettings[segment.id]?.addedOhms;
          if (ohms === undefined) return [];
          const fed = segment.via && (segment.members[0]?.id ?? segment.via.placement.id);
          const rail = (fed && feedOf(plan, sheets, board, fed).rail) ?? board.sheet.logicRail;
          return (['sda', 'scl'] as const).map((line): Draft => {
            const at = lineAt(plan, sheets, segment, line) ?? { to: 'pin', pin: bus.pins[line] ?? '' };
            return {
              id: `${segment.id}:bus.${line}`,
              role: 'bus',
              kind: 'resistor',
              value: ohms,
              ends: [{ at }, { at: { to: 'rail', rail } }],
            };
          });
        }),
  );
}

/** The terminals at which the plan keeps a component; coils have theirs by their sheet. */
const keysWithComponents = (plan: Plan): ReadonlySet<TerminalKey> =>
  new Set([
    ...Object.keys(plan.series),
    ...Object.keys(plan.pulls),
    ...Object.keys(plan.drivers),
    ...Object.entries(plan.wires).flatMap(([key, { end }]) => (end.to === 'trimmer' || end.to === 'divider' ? [key] : [])),
  ]);

/** Every component that is added to the parts, with its reference designator and its ends: part by part in printed order, then those of buses.
 *  The circuit of a bare chip is the board's own. */
export const planComponents = memoizeByPair((plan: Plan, sheets: Sheets): readonly Component[] => {
  const board = boardOf(plan, sheets);
  if (!board) return [];
  const keys = keysWithComponents(plan);
  const wanted = new Map(Object.keys(plan.capacitors).length > 0 ? wantedCapacitors(plan, sheets).map((one) => [one.placement, one]) : []);
  const drafts = [
    ...plan.placements.flatMap((placement) => [
      ...terminalsOf(plan, placement, sheets).flatMap((item) =>
        keys.has(item.key) || item.terminal.coil ? atTerminal(plan, sheets, board, item) : [],
      ),
      ...ladderDrafts(plan, sheets, board, placement),
      ...capacitorDrafts(sheets, placement, wanted.get(placement.id)),
    ]),
    ...(Object.values(plan.busSettings).some((settings) => settings.addedOhms !== undefined) ? busDrafts(plan, sheets, board) : []),
  ];
  const taken = new Set([
    ...(board.sheet.chipCircuit?.components ?? []).map(({ name }) => name),
    ...drafts.flatMap(({ id }) => plan.references[id] ?? []),
  ]);
  return drafts.map((draft): Component => {
    const kept = plan.references[draft.id];
    const name =
      kept ??
      firstFree(
        (one) => taken.has(one),
        (n) => `${LETTERS[draft.kind]}${n}`,
      );
    taken.add(name);
    return { ...draft, name };
  });
});

/** By id. */
export const componentNames = memoizeByPair(
  (plan: Plan, sheets: Sheets): ReadonlyMap<string, string> => new Map(planComponents(plan, sheets).map(({ id, name }) => [id, name])),
);

/** The edits that keep the present reference designators: once the build has begun, R3 stays R3. */
export const namesKept = (plan: Plan, sheets: Sheets): readonly Edit[] =>
  planComponents(plan, sheets).flatMap(({ id, name }): Edit[] =>
    plan.references[id] === undefined ? [{ kind: 'reference', component: id, name }] : [],
  );

/** The trimmer or the two resistors that a terminal is set by, such as 'RV1' or 'R1/R2'; undefined for other terminals. */
export function dividerNames(plan: Plan, sheets: Sheets, key: TerminalKey): string | undefined {
  const to = plan.wires[key]?.end.to;
  if (to !== 'trimmer' && to !== 'divider') return undefined;
  const own = planComponents(plan, sheets).filter((one) => one.key === key && isDivider(one));
  return own.map(({ name }) => name).join('/');
}
