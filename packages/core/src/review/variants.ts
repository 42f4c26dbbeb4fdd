import { findOrThrow, orThrow } from '../collections/orThrow';
import { addressOptions } from '../assign/addresses/addressOptions';
import { assignPins } from '../assign/assignPins';
import type { Finding } from '../checks/engine/check';
import { busClock } from '../electrics/reports/busClock';
import { accessBits } from '../electrics/formulas/i2cTime';
import { levelPairs } from '../electrics/reports/levels';
import { spiReport } from '../electrics/reports/spiReport';
import { findBuses } from '../nets/buses';
import { findNets } from '../nets/nets';
import { segmentsOf } from '../nets/segments';
import { terminalsOf } from '../nets/terminals';
import { boardOf, boardOrThrow, type Edit } from '../plan/edit';
import type { Plan, TerminalKey } from '../plan/plan';
import type { PlacedPart } from '../plan/planContext';
import { swapPart } from '../plan/swapPart';
import { memoryLedger } from '../displays/memory';
import { notedSheets } from '../sheets/notedSheets';
import type { PartSheet } from '../sheets/partSheet';
import { PIN_ROLES } from '../sheets/roles';
import { partSheet, type Sheets } from '../sheets/sheetIndex';
import { previewEdits } from './previewEdits';
import { planFindingsOf } from './review';

/** What one form of a part comes to in a plan. */
export interface VariantRow {
  readonly part: PartSheet;
  /** The form that the plan has. */
  readonly current: boolean;
  /** Puts this form in the place of the present one; nothing for that itself. */
  readonly edits: readonly Edit[];
  /** Board pins that only this part is at, and those that it shares. */
  readonly privatePins: number;
  readonly sharedPins: number;
  /** Wires to pins, rails and ground. */
  readonly wires: number;
  /** How many settings of addresses there are to choose from; undefined for parts without. */
  readonly addresses: number | undefined;
  /** Maximum frames or readings per second, alone on its bus at its clock. */
  readonly mostPerSecond: number | undefined;
  readonly what: 'reading' | 'frame' | 'text' | undefined;
  /** Memory of its picture, as much of it as the plan keeps. */
  readonly ramBytes: number;
  readonly typicalMilliamps: number | undefined;
  /** Its signals are of another voltage than the board's. */
  readonly shifts: boolean;
  /** Resistors that it brings to bus lines, in ohms. */
  readonly pullUps: readonly number[];
  /** Findings that come and that go. */
  readonly added: readonly Finding[];
  readonly gone: readonly Finding[];
  /** Needed terminals that find no place. */
  readonly open: readonly TerminalKey[];
  /** Wires of other parts that give way. */
  readonly moved: number;
}

/** Nodes after which the best found is taken: a comparison is looked at, not waited for. */
const NODES = 2000;

/** The other forms of a part: those that are sold as the same thing.
 *  @returns the part itself among them, in the order of the catalogue; it alone where it has no other form */
export function formsOf(sheets: Sheets, part: PartSheet): readonly PartSheet[] {
  const all = [...sheets.parts.values()].map((p) => p.sheet);
  const forms = part.variantOf === undefined ? [] : all.filter((p) => p.variantOf === part.variantOf && p.id !== part.id);
  return [part, ...forms];
}

/** How often a part could be talked to in a second, at the clock that its bus has in a plan. */
function mostPerSecond(plan: Plan, sheets: Sheets, placement: string, part: PartSheet): number | undefined {
  const board = boardOrThrow(plan, sheets);
  if (!part.access) return undefined;
  for (const bus of findBuses(plan, sheets)) {
    if (bus.kind === 'i2c' && segmentsOf(plan, sheets, bus).some((s) => s.members.some((m) => m.id === placement)))
      return 1 / (accessBits(part.access.transfers) / busClock(plan, sheets, bus).hz + (part.access.stretchMicroseconds ?? 0) * 1e-6);
    if (bus.kind === 'spi' && bus.members.some((m) => m.id === placement))
      return spiReport(plan, sheets, board, bus).rows.find((row) => row.chain.includes(placement))?.time?.mostPerSecond;
  }
  return undefined;
}

/** The figures of a part in a plan. */
function measured(plan: Plan, sheets: Sheets, id: string, part: PartSheet) {
  const board = boardOrThrow(plan, sheets);
  const nets = findNets(plan, sheets);
  const placement = findOrThrow(plan.placements, (p) => p.id === id);
  const items = terminalsOf(plan, placement, sheets);
  const pins = new Map<string, boolean>();
  for (const item of items) {
    const net = nets.byTerminal.get(item.key);
    const pin = PIN_ROLES[item.terminal.role] ? net?.pins[0] : undefined;
    if (net && pin !== undefined) pins.set(pin, (pins.get(pin) ?? false) || net.terminals.some((t) => t.placement.id !== id));
  }
  const shared = [...pins.values()].filter(Boolean).length;
  return {
    privatePins: pins.size - shared,
    sharedPins: shared,
    wires: items.filter((item) => item.wire).length,
    addresses: part.bus.devices ? addressOptions({ plan, board }, { placement, part }).length : undefined,
    mostPerSecond: mostPerSecond(plan, sheets, id, part),
    what: part.access?.what,
    ramBytes: memoryLedger(plan, sheets)?.lines.find((line) => line.placement === id)?.bytes ?? 0,
    typicalMilliamps: part.supply?.typicalMilliamps,
    shifts: levelPairs(plan, sheets).some((pair) => pair.placement === id && (pair.verdict === 'damage' || pair.verdict === 'none')),
    pullUps: placement.pullUpsCut ? [] : (part.module.pullUps ?? []).map((pull) => pull.ohms),
  };
}

function otherForm(plan: Plan, sheets: Sheets, { placement, part: from }: PlacedPart, to: PartSheet): VariantRow | undefined {
  const swap = swapPart(plan, placement, from, to);
  const bare = previewEdits(plan, swap, sheets, planFindingsOf);
  if (!bare.ok) return undefined;
  const settled = orThrow(assignPins(bare.preview.plan, sheets, { only: placement.id, nodes: NODES }), 'board sheet');
  const edits = [...swap, ...settled.edits];
  const result = previewEdits(plan, edits, sheets, planFindingsOf);
  if (!result.ok) return undefined;
  const { preview } = result;
  const others = preview.wires.filter(({ terminal, from: before }) => before && !terminal.startsWith(`${placement.id}:`));
  return {
    part: to,
    current: false,
    edits,
    ...measured(preview.plan, sheets, placement.id, to),
    added: preview.added,
    gone: preview.gone,
    open: settled.open,
    moved: others.length,
  };
}

/** Compares all versions of a part, each in place of the present one and connected as far as possible. Undefined if the placement or a
 *  sheet is missing. */
export function compareForms(plan: Plan, kept: Sheets, id: string): readonly VariantRow[] | undefined {
  const sheets = notedSheets(kept, plan.benchNotes);
  const placement = plan.placements.find((p) => p.id === id);
  const part = placement && partSheet(sheets, placement.sheet)?.sheet;
  if (!placement || !part || !boardOf(plan, sheets)) return undefined;
  return formsOf(sheets, part).flatMap((form): readonly VariantRow[] => {
    if (form.id !== part.id) {
      const row = otherForm(plan, sheets, { placement, part }, form);
      return row ? [row] : [];
    }
    const open = planFindingsOf(plan, sheets).filter((f) => f.code === 'terminal-unwired' && f.place.placements?.includes(id));
    return [
      {
        part: form,
        current: true,
        edits: [],
        ...measured(plan, sheets, id, part),
        added: [],
        gone: [],
        open: open.flatMap((f) => f.place.terminals ?? []),
        moved: 0,
      },
    ];
  });
}
