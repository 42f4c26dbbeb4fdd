import { orThrow } from '../../collections/orThrow';
import { planTerminals } from '../../nets/terminals';
import { findNets } from '../../nets/nets';
import { applyEdits } from '../../plan/applyEdits';
import { boardOf, type Edit } from '../../plan/edit';
import type { Plan, TerminalKey } from '../../plan/plan';
import { changedWires } from '../previewEdits';
import type { Data } from '../../checks/engine/check';
import type { Sheets } from '../../sheets/sheetIndex';
import { conflictOf } from '../../assign/explain';
import { assignPins, type AssignOptions } from '../../assign/assignPins';
import * as finders from './finders';
import { type Draft, type Finder, type Stuck, WAY_KINDS, type WayKind } from './way';

/** An alternative for a plan with terminals that cannot be connected: assigned, with its cost. */
export interface WayOut {
  readonly kind: WayKind;
  readonly data: Data;
  /** One batch: its changes and the assigned wires. */
  readonly edits: readonly Edit[];
  readonly plan: Plan;
  /** Needed terminals that still find no place. */
  readonly open: readonly TerminalKey[];
  /** Change in signal pins in use. */
  readonly pins: number;
  readonly parts: number;
  readonly moved: number;
  readonly proved: boolean;
}

/** Order of equal alternatives: wires only first, new parts last. */
const FINDERS: { readonly [K in WayKind]: Finder } = {
  variant: finders.variant,
  'reset-tie': finders.resetTie,
  'join-lines': finders.joinLines,
  'software-bus': finders.softwareBus,
  'software-pwm': finders.softwarePwm,
  adc: finders.adc,
  expander: finders.expander,
  'shift-out': finders.shiftOut,
  'shift-in': finders.shiftIn,
  decoder: finders.decoder,
  ladder: finders.ladder,
  multiplexer: finders.multiplexer,
};

/** Ways of one kind that are offered: more would hide the others. */
const MOST = 2;

const usedPins = (plan: Plan, sheets: Sheets): number => findNets(plan, sheets).byPin.size;

function settledDraft(stuck: Stuck, draft: Draft): WayOut | undefined {
  const { plan, sheets, settled, options } = stuck;
  const applied = applyEdits(plan, draft.edits, sheets);
  if (!applied.ok) return undefined;
  const after = orThrow(assignPins(applied.plan, sheets, options), 'board sheet');
  return {
    kind: draft.kind,
    data: draft.data,
    edits: [...draft.edits, ...after.edits],
    plan: after.plan,
    open: after.open,
    pins: usedPins(after.plan, sheets) - usedPins(settled.plan, sheets),
    parts: draft.parts,
    moved: changedWires(plan, after.plan).filter(
      ({ from, terminal }) => from && after.plan.placements.some((p) => terminal.startsWith(`${p.id}:`)),
    ).length,
    proved: after.proved,
  };
}

/** Ways out of a plan in which something finds no place, each solved: those that leave nothing open first, then those with fewer
 *  parts to add, then fewer wires to move. Ways that do not help are left out; none where everything has its place.
 *  @param options limits of each single search */
export function waysOut(plan: Plan, sheets: Sheets, options: AssignOptions = {}): readonly WayOut[] {
  const board = boardOf(plan, sheets);
  const settled = board && assignPins(plan, sheets, options);
  if (!board || !settled || settled.open.length === 0) return [];
  const stuck: Stuck = {
    plan,
    sheets,
    board,
    terminals: planTerminals(plan, sheets),
    settled,
    conflict: conflictOf(settled.instance, options),
    options,
    openAfter(edits) {
      const applied = applyEdits(plan, edits, sheets);
      return applied.ok ? orThrow(assignPins(applied.plan, sheets, options), 'board sheet').open.length : undefined;
    },
  };
  const found = WAY_KINDS.flatMap((kind) => {
    const ways: WayOut[] = [];
    for (const draft of FINDERS[kind](stuck)) {
      if (options.stop?.()) break;
      const way = settledDraft(stuck, draft);
      if (way && way.open.length < settled.open.length) ways.push(way);
      if (ways.filter((w) => w.open.length === 0).length >= MOST) break;
    }
    return ways.toSorted((a, b) => a.open.length - b.open.length || a.moved - b.moved).slice(0, MOST);
  });
  return found.toSorted((a, b) => a.open.length - b.open.length || a.parts - b.parts || a.moved - b.moved || a.pins - b.pins);
}
