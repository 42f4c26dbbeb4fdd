import { atOrThrow } from '../../collections/orThrow';
import type { Data } from '../../checks/engine/check';
import type { Edit } from '../../plan/edit';
import { newPlacement } from '../../plan/newPlacement';
import type { Placement, Plan } from '../../plan/plan';
import type { PartSheet, PartTerminal, Service } from '../../sheets/partSheet';
import { portsOf } from '../../sheets/ports';
import type { IndexedBoard, Sheets } from '../../sheets/sheetIndex';
import type { PlanTerminal } from '../../nets/terminals';
import type { Conflict } from '../../assign/explain';
import type { PinAssignment, AssignOptions } from '../../assign/assignPins';

export const WAY_KINDS = [
  'variant',
  'reset-tie',
  'join-lines',
  'software-bus',
  'software-pwm',
  'adc',
  'expander',
  'shift-out',
  'shift-in',
  'decoder',
  'ladder',
  'multiplexer',
] as const;
export type WayKind = (typeof WAY_KINDS)[number];

/** An alternative before pin assignment: its changes and the data of its text. */
export interface Draft {
  readonly kind: WayKind;
  readonly data: Data;
  readonly edits: readonly Edit[];
  /** Number of parts added less parts removed. */
  readonly parts: number;
}

/** What ways out are looked for in. */
export interface Stuck {
  readonly plan: Plan;
  readonly sheets: Sheets;
  readonly board: IndexedBoard;
  readonly terminals: readonly PlanTerminal[];
  readonly settled: PinAssignment;
  readonly conflict: Conflict | undefined;
  readonly options: AssignOptions;
  /** Required terminals that remain unconnected with a draft; undefined if it does not apply. */
  openAfter(edits: readonly Edit[]): number | undefined;
}

/** A finder of drafts, the likeliest first. */
export type Finder = (stuck: Stuck) => readonly Draft[];

/** Whether a terminal may be moved: not locked and not soldered to the board. */
export const isMovable = (item: PlanTerminal): boolean => !item.wire?.locked && !item.placement.onBoard;

const toTerminal = (item: PlanTerminal, helper: Placement, terminal: PartTerminal): Edit => ({
  kind: 'wire',
  placement: item.placement.id,
  terminal: item.terminal.id,
  end: { to: 'terminal', placement: helper.id, terminal: terminal.id },
});

/** A helper part with as few terminals on it as are enough: those that are open first, then wired ones that make room,
 *  until nothing stays open or the helper is full.
 *  @param movable terminals that it could take, the open ones first */
export function onHelper(
  stuck: Stuck,
  kind: WayKind,
  part: PartSheet,
  ports: readonly PartTerminal[],
  movable: readonly PlanTerminal[],
): readonly Draft[] {
  const helper = newPlacement(stuck.plan, part);
  const add: Edit = { kind: 'add-placement', placement: helper };
  const most = Math.min(ports.length, movable.length);
  const draftOf = (count: number): Draft => ({
    kind,
    parts: 1,
    data: {
      helper: { is: 'words', text: part.title },
      count: { is: 'count', value: count },
      terminals: { is: 'terminals', keys: movable.slice(0, count).map((item) => item.key) },
    },
    edits: [add, ...movable.slice(0, count).map((item, at) => toTerminal(item, helper, atOrThrow(ports, at)))],
  });
  const open = movable.filter((item) => stuck.settled.open.includes(item.key)).length;
  for (let count = Math.max(1, Math.min(open, most)); count <= most; count += 1) {
    const draft = draftOf(count);
    if (stuck.openAfter(draft.edits) === 0) return [draft];
  }
  return most > 0 ? [draftOf(most)] : [];
}

/** Parts of the sheets that serve in one of these ways, fewest terminals first. */
export function helpersFor(sheets: Sheets, does: Service): readonly PartSheet[] {
  return [...sheets.parts.values()]
    .map((p) => p.sheet)
    .filter((p) => portsOf(p, does).length > 0)
    .toSorted((a, b) => a.terminals.list.length - b.terminals.list.length || (a.id < b.id ? -1 : 1));
}

/** Terminals in the order in which they are moved out of the way: those that find no place, those that are not wired yet, then the
 *  wired ones from the last part to the first, as what was wired early tends to be built. */
export function placelessFirst({ settled }: Stuck, items: readonly PlanTerminal[]): readonly PlanTerminal[] {
  const placeless = new Set(settled.open);
  const open = items.filter((t) => !t.wire);
  return [
    ...open.filter((t) => placeless.has(t.key)),
    ...open.filter((t) => !placeless.has(t.key)),
    ...items.filter((t) => t.wire).toReversed(),
  ];
}
