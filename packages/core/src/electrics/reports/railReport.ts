import { memoizeByPair } from '../../memo/memoizeByPair';
import { findNets } from '../../nets/nets';
import { planTerminals } from '../../nets/terminals';
import { boardOf } from '../../plan/edit';
import type { Plan } from '../../plan/plan';
import { typical } from '../../quantity/range';
import type { OwnCurrent, Rail } from '../../sheets/boardSheet';
import type { WantedCapacitor } from '../../sheets/partSheet';
import { partSheet, type IndexedBoard, type Sheets } from '../../sheets/sheetIndex';
import { feedRail } from '../../nets/feedRail';
import { type LedReport, ledReports } from './ledReport';
import { setDriversOf } from './setDrivers';

/** A load of a rail. */
export interface SupplyLine {
  /** A part; for `leds` the part whose LEDs are driven by board pins; for `rail` and `board` nothing. */
  readonly placement: string | undefined;
  readonly what: 'part' | 'leds' | 'rail' | 'board';
  /** The rail that is made from this one, and what the board calls it. */
  readonly rail?: string;
  readonly label?: string;
  readonly units: number;
  readonly share: number;
  /** In milliamperes: on average, and at its peak with the share of it that counts. */
  readonly typicalMilliamps: number;
  readonly peakMilliamps: number;
}

/** A regulator on the board: what it turns into heat, and how hot that makes it. */
export interface RegulatorHeat {
  readonly from: string;
  readonly kind: 'linear' | 'converter' | 'diode';
  /** Voltage drop; none for a converter. */
  readonly dropVolts: number;
  /** What flows through it on average, the board's own current with it, in milliamperes. */
  readonly milliamps: number;
  readonly watts: number;
  /** Temperature rise above ambient; undefined without a thermal resistance. */
  readonly kelvin: number | undefined;
}

export interface RailReport {
  readonly rail: Rail;
  /** The largest first. */
  readonly lines: readonly SupplyLine[];
  readonly typicalMilliamps: number;
  readonly peakMilliamps: number;
  /** Current of the board itself, if not included in the maximum current. */
  readonly besides: (OwnCurrent & { readonly heldMilliamps: number }) | undefined;
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
    const set = setDriversOf(plan, sheets).find((driver) => driver.placement === placement.id)?.totalAmps;
    const { typicalMilliamps, peakMilliamps } = set ? { typicalMilliamps: typical(set) * 1000, peakMilliamps: set.max * 1000 } : supply;
    const line: SupplyLine = {
      placement: placement.id,
      what: 'part',
      units,
      share,
      typicalMilliamps: typicalMilliamps * units,
      peakMilliamps: Math.max(typicalMilliamps, peakMilliamps * share) * units,
    };
    const rail = feedRail(plan, sheets, placement.id);
    const known = byRail.get(rail);
    if (known) known.push(line);
    else byRail.set(rail, [line]);
  }
  return byRail;
}

/** The rail that supplies an LED: through a board pin, through a part, or directly. */
function ledRail(plan: Plan, sheets: Sheets, board: IndexedBoard, { placement, driver, sinks }: LedReport): string | undefined {
  if (driver.by === 'rail') return driver.rail;
  const drives = driver.by === 'pin' ? board.sheet.logicRail : feedRail(plan, sheets, driver.placement);
  return sinks ? (feedRail(plan, sheets, placement) ?? drives) : drives;
}

/** What LEDs take from a rail. */
function ledLines(plan: Plan, leds: readonly LedReport[]): readonly SupplyLine[] {
  const lines = new Map<string, { typical: number; peak: number }>();
  for (const led of leds) {
    const line = lines.get(led.placement) ?? { typical: 0, peak: 0 };
    // One digit at a time: an LED of four digits has a quarter on average, and all of one digit are on together.
    line.typical += ((led.amps.typ ?? led.amps.max) * 1000) / led.digits;
    line.peak += led.amps.max * 1000;
    lines.set(led.placement, line);
  }
  return [...lines].map(([placement, { typical, peak }]) => {
    const share = plan.loads[placement]?.share ?? 1;
    return { placement, what: 'leds', units: 1, share, typicalMilliamps: typical, peakMilliamps: Math.max(typical, peak * share) };
  });
}

/** The current of the board itself from a rail, with its radio if in use. `heldMilliamps` is the peak as seen by the supplies before it:
 *  radio bursts are too short for a fuse or a port. */
function ownOf(plan: Plan, { sheet }: IndexedBoard, rail: Rail): (OwnCurrent & { readonly heldMilliamps: number }) | undefined {
  if (!rail.own) return undefined;
  const radio = plan.radio && rail.id === sheet.logicRail ? sheet.radio?.own : undefined;
  return { ...rail.own, ...radio, heldMilliamps: Math.max(rail.own.peakMilliamps, radio?.typicalMilliamps ?? 0) };
}

/** Input current of a rail's regulator per milliampere of output. */
function gainOf(rail: Rail, source: Rail): number {
  const { kind, efficiency } = rail.regulator ?? {};
  // The schema requires the efficiency of a converter.
  return kind === 'converter' && efficiency !== undefined ? typical(rail.volts) / (typical(source.volts) * efficiency) : 1;
}

/** Every rail with its loads: parts, LEDs, the board itself, and rails regulated from it with all their loads. Inputs of the board are
 *  listed once they have a load. */
export const railReports = memoizeByPair((plan: Plan, sheets: Sheets): readonly RailReport[] => {
  const board = boardOf(plan, sheets);
  if (!board) return [];
  const rails = board.sheet.rails.list;
  const parts = partLines(plan, sheets);
  const leds = ledReports(plan, sheets)
    .filter((led) => Number.isFinite(led.amps.max))
    .map((led) => ({ led, rail: ledRail(plan, sheets, board, led) }));
  const ledsAt = (id: string) => leds.flatMap(({ led, rail }) => (rail === id ? [led] : []));
  const done = new Map<string, RailReport>();
  const sheetOf = (rail: Rail, above: readonly Rail[] = []): RailReport => {
    const known = done.get(rail.id);
    if (known) return known;
    // A valid sheet has no closed loop; an invalid one must not hang the page.
    const onTheWay = [...above, rail];
    const own = ownOf(plan, board, rail);
    const line = (what: 'board' | 'rail', typicalMilliamps: number, peakMilliamps: number, made?: Rail): SupplyLine[] =>
      peakMilliamps > 0
        ? [
            {
              placement: undefined,
              what,
              units: 1,
              share: 1,
              typicalMilliamps,
              peakMilliamps,
              ...(made ? { rail: made.id, label: made.label } : {}),
            },
          ]
        : [];
    const made = rails
      .filter((other) => other.regulator?.from === rail.id && !onTheWay.includes(other))
      .flatMap((other) => {
        const { typicalMilliamps, peakMilliamps, besides } = sheetOf(other, onTheWay);
        const gain = gainOf(other, rail);
        const [average, peak] = [typicalMilliamps + (besides?.typicalMilliamps ?? 0), peakMilliamps + (besides?.heldMilliamps ?? 0)];
        return line('rail', average * gain, peak * gain, other);
      });
    const lines = [
      ...(parts.get(rail.id) ?? []),
      ...ledLines(plan, ledsAt(rail.id)),
      ...made,
      ...(own && !rail.own?.leftOut ? line('board', own.typicalMilliamps, own.heldMilliamps) : []),
    ].toSorted((a, b) => b.peakMilliamps - a.peakMilliamps);
    const besides = rail.own?.leftOut ? own : undefined;
    const sheet: RailReport = {
      rail,
      lines,
      typicalMilliamps: total(lines, 'typicalMilliamps'),
      peakMilliamps: total(lines, 'peakMilliamps'),
      besides,
      regulator: heatOf(board, rail, total(lines, 'typicalMilliamps') + (besides?.typicalMilliamps ?? 0)),
    };
    done.set(rail.id, sheet);
    return sheet;
  };
  return rails
    .map((rail) => sheetOf(rail))
    .filter(({ rail, lines }) => rail.direction !== 'in' || lines.some((line) => line.placement !== undefined));
});

/** What becomes heat: in a linear regulator the drop at the highest input times what flows on average; in a converter what its efficiency
 *  leaves of the power that it gives. */
function heatOf(board: IndexedBoard, rail: Rail, milliamps: number): RegulatorHeat | undefined {
  const source = board.sheet.rails.list.find((r) => r.id === rail.regulator?.from);
  if (!rail.regulator || !source) return undefined;
  const { kind = 'linear', kelvinPerWatt, efficiency } = rail.regulator;
  const amps = milliamps / 1000;
  const dropVolts = kind === 'converter' ? 0 : Math.max(0, source.volts.max - typical(rail.volts));
  const watts = efficiency === undefined ? dropVolts * amps : typical(rail.volts) * amps * (1 / efficiency - 1);
  return { from: source.id, kind, dropVolts, milliamps, watts, kelvin: kelvinPerWatt === undefined ? undefined : watts * kelvinPerWatt };
}

/** A part that needs external capacitors. */
export interface WantedCapacitors {
  readonly placement: string;
  readonly list: readonly WantedCapacitor[];
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
