import { derived } from '../nets/derived';
import { findNets } from '../nets/nets';
import { planTerminals } from '../nets/terminals';
import { boardOf } from '../plan/edit';
import type { Plan } from '../plan/plan';
import type { Rail } from '../sheets/boardSheet';
import { partSheet, type IndexedBoard, type Sheets } from '../sheets/sheetIndex';
import { feedRail } from '../nets/feedRail';
import { type Lamp, lampsOf } from './lamps';

/** What takes current from a rail. */
export interface SupplyLine {
  /** A part; for `lamps` the part whose LEDs the board's own pins feed; for `rail` nothing. */
  readonly placement: string | undefined;
  readonly what: 'part' | 'lamps' | 'rail';
  /** The rail that a regulator on the board makes from this one. */
  readonly rail?: string;
  readonly units: number;
  readonly share: number;
  /** In milliamperes: on average, and at its peak with the share of it that counts. */
  readonly typicalMilliamps: number;
  readonly peakMilliamps: number;
}

/** A regulator on the board: what it turns into heat, and how hot that makes it. */
export interface RegulatorHeat {
  readonly from: string;
  readonly dropVolts: number;
  readonly watts: number;
  /** Above the air around it; undefined where the sheet does not say how well it cools. */
  readonly kelvin: number | undefined;
}

export interface RailSheet {
  readonly rail: Rail;
  /** The largest first. */
  readonly lines: readonly SupplyLine[];
  readonly typicalMilliamps: number;
  readonly peakMilliamps: number;
  readonly regulator: RegulatorHeat | undefined;
}

const total = (lines: readonly SupplyLine[], by: 'typicalMilliamps' | 'peakMilliamps'): number =>
  lines.reduce((sum, line) => sum + line[by], 0);

/** The parts on each rail, with how many of each and how much of it counts. */
function partLines(plan: Plan, sheets: Sheets): ReadonlyMap<string | undefined, readonly SupplyLine[]> {
  const byRail = new Map<string | undefined, SupplyLine[]>();
  for (const placement of plan.placements) {
    const part = partSheet(sheets, placement.sheet)?.sheet;
    // LEDs are worked out from their resistors.
    if (!part?.supply || part.terminals.list.some((t) => t.led)) continue;
    const { supply } = part;
    const { units = 1, share = 1 } = plan.loads[placement.id] ?? {};
    const line: SupplyLine = {
      placement: placement.id,
      what: 'part',
      units,
      share,
      typicalMilliamps: supply.typicalMilliamps * units,
      peakMilliamps: Math.max(supply.typicalMilliamps, supply.peakMilliamps * share) * units,
    };
    const rail = feedRail(plan, sheets, placement.id);
    const known = byRail.get(rail);
    if (known) known.push(line);
    else byRail.set(rail, [line]);
  }
  return byRail;
}

/** The rail that a lamp's current comes from: through the board's pins, through a part that hangs on it, or straight. */
function lampRail(plan: Plan, sheets: Sheets, board: IndexedBoard, { placement, driver, sinks }: Lamp): string | undefined {
  const drives = driver.by === 'pin' ? board.sheet.logicRail : feedRail(plan, sheets, driver.placement);
  return sinks ? (feedRail(plan, sheets, placement) ?? drives) : drives;
}

/** What LEDs take from a rail. */
function lampLines(plan: Plan, lamps: readonly Lamp[]): readonly SupplyLine[] {
  const lines = new Map<string, { typical: number; peak: number }>();
  for (const lamp of lamps) {
    const line = lines.get(lamp.placement) ?? { typical: 0, peak: 0 };
    // One digit at a time: on average a lamp of four has a quarter, and all of one digit are on at once.
    line.typical += ((lamp.amps.typ ?? lamp.amps.max) * 1000) / lamp.digits;
    line.peak += lamp.amps.max * 1000;
    lines.set(lamp.placement, line);
  }
  return [...lines].map(([placement, { typical, peak }]) => {
    const share = plan.loads[placement]?.share ?? 1;
    return { placement, what: 'lamps', units: 1, share, typicalMilliamps: typical, peakMilliamps: Math.max(typical, peak * share) };
  });
}

/** Every rail that gives current, with what takes it. What a regulator on the board makes from another rail is taken from that one, too. */
export const supplySheets = derived((plan: Plan, sheets: Sheets): readonly RailSheet[] => {
  const board = boardOf(plan, sheets);
  if (!board) return [];
  const rails = board.sheet.rails.list.filter((rail) => rail.direction !== 'in');
  const parts = partLines(plan, sheets);
  const lamps = lampsOf(plan, sheets)
    .filter((lamp) => Number.isFinite(lamp.amps.max))
    .map((lamp) => ({ lamp, rail: lampRail(plan, sheets, board, lamp) }));
  const lampsAt = (id: string) => lamps.flatMap(({ lamp, rail }) => (rail === id ? [lamp] : []));
  const own = new Map(rails.map(({ id }) => [id, [...(parts.get(id) ?? []), ...lampLines(plan, lampsAt(id))]]));
  return rails.map((rail): RailSheet => {
    const made = rails.filter((other) => other.regulator?.from === rail.id && own.get(other.id)!.length > 0);
    const lines = [
      ...own.get(rail.id)!,
      ...made.map((other): SupplyLine => ({
        placement: undefined,
        what: 'rail',
        rail: other.id,
        units: 1,
        share: 1,
        typicalMilliamps: total(own.get(other.id)!, 'typicalMilliamps'),
        peakMilliamps: total(own.get(other.id)!, 'peakMilliamps'),
      })),
    ].toSorted((a, b) => b.peakMilliamps - a.peakMilliamps);
    return {
      rail,
      lines,
      typicalMilliamps: total(lines, 'typicalMilliamps'),
      peakMilliamps: total(lines, 'peakMilliamps'),
      regulator: heatOf(board, rail, total(lines, 'typicalMilliamps')),
    };
  });
});

/** What a linear regulator turns into heat: the drop at the highest input times what flows on average. */
function heatOf(board: IndexedBoard, rail: Rail, milliamps: number): RegulatorHeat | undefined {
  const source = board.sheet.rails.list.find((r) => r.id === rail.regulator?.from);
  if (!rail.regulator || !source) return undefined;
  const dropVolts = Math.max(0, source.volts.max - (rail.volts.typ ?? rail.volts.min));
  const watts = (dropVolts * milliamps) / 1000;
  const { kelvinPerWatt } = rail.regulator;
  return { from: source.id, dropVolts, watts, kelvin: kelvinPerWatt === undefined ? undefined : watts * kelvinPerWatt };
}

/** A part that wants capacitors beside it that are not on it. */
export interface WantedCapacitors {
  readonly placement: string;
  readonly list: readonly { readonly farads: number; readonly at: string }[];
  readonly there: boolean;
}

/** The capacitors that the sheets ask for, part by part; of parts that are fed. */
export function wantedCapacitors(plan: Plan, sheets: Sheets): readonly WantedCapacitors[] {
  const nets = findNets(plan, sheets);
  const fed = new Set(
    planTerminals(plan, sheets).flatMap((t) => (t.terminal.role === 'supply.vcc' && nets.byTerminal.has(t.key) ? [t.placement.id] : [])),
  );
  return plan.placements.flatMap((placement) => {
    const list = partSheet(sheets, placement.sheet)?.sheet.supply?.capacitors;
    return list && fed.has(placement.id) && !placement.onBoard
      ? [{ placement: placement.id, list, there: plan.capacitors[placement.id] === true }]
      : [];
  });
}
