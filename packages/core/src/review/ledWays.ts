import { atOrThrow } from '../collections/orThrow';
import { driversFor, ontoDriver, rewired } from '../assign/ontoDriver';
import { ledReports } from '../electrics/reports/ledReport';
import { canMultiplex, commonsOf, segmentsOfPart } from '../nets/multiplexed';
import { applyEdits } from '../plan/applyEdits';
import type { Edit } from '../plan/edit';
import { type Placement, type Plan, splitKey, terminalKey } from '../plan/plan';
import { SEGMENTS } from '../displays/glyphs';
import { outputsOf } from '../displays/segmentTable';
import type { PartSheet, PartTerminal } from '../sheets/partSheet';
import { portsOf } from '../sheets/ports';
import { partSheet, type Sheets } from '../sheets/sheetIndex';
import { additionOf } from './addition';
import { planFindingsOf } from './review';
import { helpersFor } from './ways/way';

/** A way to drive the bare LEDs of a part by another part than the board. */
export interface LedWay {
  /** `driver`: all lines on a driver; `segments`: the segment lines on a shift register or expander; `registers`: the digits, too. */
  readonly kind: 'driver' | 'segments' | 'registers';
  /** The part of the plan that it goes to, where it is there already. */
  readonly placement: string | undefined;
  /** The title of the part to add otherwise. */
  readonly adds: string | undefined;
  readonly edits: readonly Edit[];
}

/** A plan that edits are collected for. */
class Draft {
  readonly edits: Edit[] = [];

  constructor(
    public plan: Plan,
    readonly sheets: Sheets,
  ) {}

  take(edits: readonly Edit[]): boolean {
    const result = applyEdits(this.plan, edits, this.sheets);
    if (!result.ok) return false;
    this.plan = result.plan;
    this.edits.push(...edits);
    return true;
  }

  /** Adds a part, wired; its placement. */
  add(part: PartSheet): Placement | undefined {
    const addition = additionOf(this.plan, this.sheets, part);
    if (!addition || addition.open.length > 0 || !this.take(addition.edits)) return undefined;
    return this.plan.placements.find((p) => p.id === addition.placement);
  }
}

function toNewDriver(plan: Plan, sheets: Sheets, display: Placement, part: PartSheet): readonly LedWay[] {
  return [...sheets.parts.values()].flatMap(({ sheet: chip }): LedWay[] => {
    if (!canMultiplex(chip, part)) return [];
    const draft = new Draft(plan, sheets);
    const driver = draft.add(chip);
    const onto = driver && ontoDriver(draft.plan, sheets, display, driver);
    if (!onto?.ok || !draft.take(onto.edits)) return [];
    return [{ kind: 'driver', placement: undefined, adds: chip.title, edits: draft.edits }];
  });
}

/** Segment lines in the order of their names: a goes to the first output, which is bit 0. */
const inOrder = (lines: readonly PartTerminal[]): readonly PartTerminal[] =>
  lines.toSorted((a, b) => rank(a) - rank(b) || a.number - b.number);
const rank = ({ id }: PartTerminal): number => {
  const at = SEGMENTS.findIndex((segment) => segment === id);
  return at < 0 ? SEGMENTS.length : at;
};

/** The outputs of a register or expander that no other part uses, in the order of their bits. */
function freeOutputs({ plan, sheets }: Draft, display: Placement, register: Placement): readonly string[] {
  const used = new Set(
    Object.entries(plan.wires).flatMap(([key, { end }]) =>
      end.to === 'terminal' && splitKey(key).placement !== display.id ? [terminalKey(end.placement, end.terminal)] : [],
    ),
  );
  const part = partSheet(sheets, register.sheet)?.sheet;
  if (!part || portsOf(part, 'output').length === 0) return [];
  return outputsOf(plan, sheets, register.id).filter((id) => {
    const key = terminalKey(register.id, id);
    return !used.has(key) && !plan.wires[key];
  });
}

/** Wires terminals of a part to the free outputs of a register or expander one after another. */
function toOutputs(draft: Draft, display: Placement, lines: readonly PartTerminal[], register: Placement): boolean {
  const outputs = freeOutputs(draft, display, register);
  if (lines.length > outputs.length) return false;
  return draft.take(
    lines.flatMap(({ id }, at) =>
      rewired(draft.plan, display.id, id, { to: 'terminal', placement: register.id, terminal: atOrThrow(outputs, at) }),
    ),
  );
}

/** The transistors that the digits need, then the resistors that fit what is left of the supply. */
function completed(draft: Draft, display: string): void {
  const { sheets } = draft;
  const lacking = planFindingsOf(draft.plan, sheets).find(
    (f) => f.code === 'digit-driver-missing' && f.place.placements?.includes(display),
  );
  const [transistors] = lacking?.remedies ?? [];
  if (transistors) draft.take(transistors.edits);
  draft.take(
    ledReports(draft.plan, sheets).flatMap(({ placement, resistorAt, fitOhms }): Edit[] =>
      placement === display && fitOhms !== undefined ? [{ kind: 'series', ...splitKey(resistorAt), ohms: fitOhms }] : [],
    ),
  );
}

/** The segment lines on a new shift register, and the digits where they are or on a second one behind it. */
function toRegisters(plan: Plan, sheets: Sheets, display: Placement, part: PartSheet): readonly LedWay[] {
  const chip = helpersFor(sheets, 'output').find((one) => one.bus.kind === 'private');
  const digits = commonsOf(part).filter((t) => t.digit);
  if (!chip) return [];
  return ([false, true] as const).flatMap((both): LedWay[] => {
    if (both && digits.length === 0) return [];
    const draft = new Draft(plan, sheets);
    const first = draft.add(chip);
    if (!first || !toOutputs(draft, display, inOrder(segmentsOfPart(part)), first)) return [];
    if (both) {
      const second = draft.add(chip);
      if (!second || !toOutputs(draft, display, digits, second)) return [];
    }
    completed(draft, display.id);
    return [{ kind: both ? 'registers' : 'segments', placement: undefined, adds: chip.title, edits: draft.edits }];
  });
}

/** The lines on registers and expanders of the plan with free outputs: segments and digits where there is room for both, else the segments. */
function toPresent(plan: Plan, sheets: Sheets, display: Placement, part: PartSheet): readonly LedWay[] {
  const [segments, digits] = [inOrder(segmentsOfPart(part)), commonsOf(part).filter((t) => t.digit)];
  const present = new Set(
    segments.flatMap((t) => {
      const end = plan.wires[terminalKey(display.id, t.id)]?.end;
      return end?.to === 'terminal' ? [end.placement] : [];
    }),
  );
  return plan.placements.flatMap((register): LedWay[] => {
    if (register.id === display.id || present.has(register.id)) return [];
    const draft = new Draft(plan, sheets);
    const free = freeOutputs(draft, display, register).length;
    const both = digits.length > 0 && free >= segments.length + digits.length;
    if (free < segments.length || !toOutputs(draft, display, both ? [...segments, ...digits] : segments, register)) return [];
    completed(draft, display.id);
    return [{ kind: both ? 'registers' : 'segments', placement: register.id, adds: undefined, edits: draft.edits }];
  });
}

/** How else the bare LEDs of a part can be driven: by the drivers of the plan first, then by its registers and expanders, then by new ones. Empty for
 *  other parts, and where a wire of it is locked. */
export function ledWays(plan: Plan, sheets: Sheets, display: Placement): readonly LedWay[] {
  const part = partSheet(sheets, display.sheet)?.sheet;
  if (!part || display.onBoard || commonsOf(part).length === 0 || segmentsOfPart(part).length === 0) return [];
  if ([...segmentsOfPart(part), ...commonsOf(part)].some((t) => plan.wires[terminalKey(display.id, t.id)]?.locked)) return [];
  return [
    ...driversFor(plan, sheets, display).map(({ driver, edits }): LedWay => ({
      kind: 'driver',
      placement: driver.id,
      adds: undefined,
      edits,
    })),
    ...toPresent(plan, sheets, display, part),
    ...toNewDriver(plan, sheets, display, part),
    ...toRegisters(plan, sheets, display, part),
  ];
}
