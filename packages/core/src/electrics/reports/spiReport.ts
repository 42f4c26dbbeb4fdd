import { firstOrThrow, orThrow } from '../../collections/orThrow';
import type { PlanContext } from '../../plan/planContext';
import type { Bus } from '../../nets/buses';
import { controllerHz } from '../../nets/controllers';
import { chainsOf } from '../../nets/chains';
import { memoizeByPair } from '../../memo/memoizeByPair';
import { connectedComponentOf } from '../../nets/connectedComponents';
import { throughPart } from '../../nets/passThrough';
import { isPulledUp } from '../../nets/pulled';
import { terminalsOf, type PlanTerminal } from '../../nets/terminals';
import type { Placement, Plan } from '../../plan/plan';
import type { FurtherChip, PartSheet } from '../../sheets/partSheet';
import { type IndexedBoard, partSheet, type Sheets } from '../../sheets/sheetIndex';
import { feedOf } from './busInputs';
import { spiBits, type SpiTime, spiTime } from '../formulas/spiTime';
import type { Worked } from '../formulas/working';

/** What flying wires carry: a rule of thumb for edges of a few nanoseconds without a ground beside each line. */
export const WIRE_CLASSES: readonly { readonly mostCm: number; readonly hz: number }[] = [
  { mostCm: 10, hz: 40e6 },
  { mostCm: 20, hz: 20e6 },
  { mostCm: 50, hz: 8e6 },
  { mostCm: 100, hz: 2e6 },
];
const LONGER_HZ = 500e3;
/** Default wire length per line, in centimetres. */
export const USUAL_SPI_CM = 15;

/** The clock that a wire of a length carries, in hertz. */
export const wireHz = (cm: number): number => WIRE_CLASSES.find((one) => cm <= one.mostCm)?.hz ?? LONGER_HZ;

/** What holds a clock down. */
export type SpiLimit = 'part' | 'controller' | 'program' | 'shifter' | 'wire' | 'set';

export interface SpiClock {
  readonly hz: number;
  readonly by: SpiLimit;
}

/** What is selected together on an SPI bus: a part, or a chain of them. */
export interface SpiRow {
  readonly head: string;
  /** The chip of the part, where it is a further one with a select of its own. */
  readonly further?: FurtherChip;
  /** The parts in the order of the wire, the head first. */
  readonly chain: readonly string[];
  /** Undefined where the part has none. */
  readonly select: PlanTerminal | undefined;
  /** The rising chip select latches the shifted bits. */
  readonly latches: boolean;
  /** A resistor holds the select high until the program runs. */
  readonly held: boolean;
  readonly modes: readonly number[];
  readonly write: SpiClock;
  /** Undefined for parts that nothing is read from. */
  readonly read: SpiClock | undefined;
  /** One access by the bus controller and by a program alone; undefined where the sheets do not say what is sent. */
  readonly time: Worked<SpiTime> | undefined;
  readonly bySoftware: SpiTime | undefined;
  readonly what: 'reading' | 'frame' | 'text' | undefined;
  readonly perSecond: number | undefined;
  /** Bits per transfer of the whole chain. */
  readonly chainBits: number | undefined;
  /** Data goes both ways on one line: a resistor between the board's two data lines. */
  readonly halfDuplex: boolean;
  /** Keeps driving the data line when it is not selected. */
  readonly holdsDataOut: boolean;
}

export interface SpiReport {
  readonly bus: Bus;
  readonly controllerHz: number | undefined;
  readonly softwareHz: number | undefined;
  readonly wireCm: number;
  readonly rows: readonly SpiRow[];
  /** Bus utilisation, as a fraction. */
  readonly share: number;
  /** One mode that serves all; undefined where none does. */
  readonly commonMode: number | undefined;
  /** A storage card that shares with others: it is to be started first, alone and slowly. */
  readonly cardShares: string | undefined;
}

/** The clock limit of a part at a supply: straight lines between the points of its sheet, the ends beyond them.
 *  @example clockAt([{ volts: 2.7, maxHz: 1.35e6 }, { volts: 5, maxHz: 3.6e6 }], 5) // 3.6e6 */
export function clockAt(points: readonly { readonly volts: number; readonly maxHz: number }[], volts: number): number | undefined {
  const sorted = points.toSorted((a, b) => a.volts - b.volts);
  const after = sorted.find((p) => p.volts >= volts);
  const before = sorted.findLast((p) => p.volts <= volts);
  if (!before || !after) return (before ?? after)?.maxHz;
  if (after.volts === before.volts) return before.maxHz;
  return before.maxHz + ((after.maxHz - before.maxHz) * (volts - before.volts)) / (after.volts - before.volts);
}

/** The lowest of several limits; the first of equals. */
function lowest(limits: readonly (SpiClock | undefined)[]): SpiClock | undefined {
  return limits.reduce((a, b) => (b && (!a || b.hz < a.hz) ? b : a), undefined);
}

const limit = (hz: number | undefined, by: SpiLimit): SpiClock | undefined => (hz === undefined ? undefined : { hz, by });

/** The slowest level shifter that a part's lines go through. */
function shifterHz(plan: Plan, sheets: Sheets, items: readonly PlanTerminal[]): number | undefined {
  const rates = items.flatMap((item) => {
    const id = item.terminal.role.startsWith('spi.') ? throughPart(plan, sheets, item.key) : undefined;
    const through = id === undefined ? undefined : plan.placements.find((p) => p.id === id);
    return (through && partSheet(sheets, through.sheet)?.sheet.bus.maxWriteHz) ?? [];
  });
  return rates.length > 0 ? Math.min(...rates) : undefined;
}

/** What applies to every part of a bus. */
interface Common {
  readonly controllerHz: number | undefined;
  /** Made by the program instead of the chip. */
  readonly software: boolean;
  readonly setHz: number | undefined;
  readonly wireCm: number;
  readonly softwareHz: number | undefined;
}

/** What holds every clock of a bus down. */
const limitsOf = ({ controllerHz, software, wireCm, setHz }: Common): readonly (SpiClock | undefined)[] => [
  limit(controllerHz, software ? 'program' : 'controller'),
  limit(wireHz(wireCm), 'wire'),
  limit(setHz, 'set'),
];

function clocksOf({ plan, sheets, board }: PlanContext, members: readonly Placement[], common: Common) {
  const shared = limitsOf(common);
  const each = members.map((member) => {
    const part = partSheet(sheets, member.sheet)?.sheet;
    const items = terminalsOf(plan, member, sheets);
    const volts = feedOf(plan, sheets, board, member.id).volts.min;
    const points = part?.bus.clockPoints ? clockAt(part.bus.clockPoints, volts) : undefined;
    const more = [limit(points, 'part'), limit(shifterHz(plan, sheets, items), 'shifter'), ...shared];
    const reads = items.some((t) => t.terminal.role === 'spi.miso' && t.wire !== undefined);
    // Points of the supply say more than one number for all of them.
    const own = (hz: number | undefined) => (points === undefined ? limit(hz, 'part') : undefined);
    return {
      write: lowest([own(part?.bus.maxWriteHz), ...more]),
      read: reads ? lowest([own(part?.bus.maxReadHz ?? part?.bus.maxWriteHz), ...more]) : undefined,
    };
  });
  return { write: orThrow(lowest(each.map((one) => one.write)), 'clock of the bus'), read: lowest(each.map((one) => one.read)) };
}

function rowOf(context: PlanContext, members: readonly Placement[], common: Common): SpiRow {
  const { plan, sheets } = context;
  const head = firstOrThrow(members);
  const parts = members.flatMap((member): readonly PartSheet[] => {
    const part = partSheet(sheets, member.sheet)?.sheet;
    return part ? [part] : [];
  });
  const own = terminalsOf(plan, head, sheets);
  const select = own.find((t) => t.terminal.role === 'spi.cs');
  const { write, read } = clocksOf(context, members, common);
  const known = parts.flatMap((part) => (part.access ? [part.access] : []));
  const bits = known.length === parts.length && known.length > 0 ? known.reduce((sum, a) => sum + spiBits(a.transfers), 0) : undefined;
  const perSecond = known.length > 0 ? Math.max(...members.map((m, at) => plan.rates[m.id] ?? known[at]?.perSecond ?? 0)) : undefined;
  const chained = parts.flatMap((part) => part.bus.chainBits ?? []);
  const chainBits = chained.length === parts.length ? chained.reduce((sum, bits) => sum + bits, 0) : undefined;
  const timeAt = (hz: number) => (bits === undefined || perSecond === undefined ? undefined : spiTime(hz, bits, perSecond));
  return {
    head: head.id,
    chain: members.map((m) => m.id),
    select,
    latches: parts[0]?.bus.selectLatches === true,
    held: select !== undefined && isPulledUp(plan, select),
    modes: parts[0]?.bus.modes ?? [],
    write,
    read,
    time: timeAt(write.hz),
    bySoftware: common.softwareHz === undefined ? undefined : timeAt(Math.min(write.hz, common.softwareHz)),
    what: known[0]?.what,
    perSecond,
    chainBits,
    halfDuplex: own.some((t) => t.terminal.role === 'spi.mosi' && t.terminal.direction === 'both'),
    holdsDataOut: parts[0]?.bus.releasesDataOut === false && own.some((t) => t.terminal.role === 'spi.miso' && t.wire !== undefined),
  };
}

/** What names a row: of one part there may be several, one for each chip. */
export const rowId = ({ head, further }: Pick<SpiRow, 'head' | 'further'>): string => (further ? `${head} ${further.id}` : head);

/** The rows of a part's further chips: what is known of them is their clock and their mode. */
function furtherRows(plan: Plan, sheets: Sheets, members: readonly Placement[], common: Common): readonly SpiRow[] {
  return members.flatMap((member) => {
    const items = terminalsOf(plan, member, sheets);
    const isUsed = ({ select, terminals }: FurtherChip) =>
      !terminals || items.some((t) => t.wire && (t.terminal.id === select || terminals.includes(t.terminal.id)));
    return (partSheet(sheets, member.sheet)?.sheet.bus.further ?? []).filter(isUsed).map((further): SpiRow => {
      const select = items.find((t) => t.terminal.id === further.select);
      const clock = orThrow(
        lowest([limit(further.maxHz, 'part'), limit(shifterHz(plan, sheets, items), 'shifter'), ...limitsOf(common)]),
        'clock of the chip',
      );
      return {
        head: member.id,
        further,
        chain: [member.id],
        select,
        latches: false,
        held: select !== undefined && isPulledUp(plan, select),
        modes: further.modes,
        write: clock,
        read: clock,
        time: undefined,
        bySoftware: undefined,
        what: undefined,
        perSecond: undefined,
        chainBits: undefined,
        halfDuplex: false,
        holdsDataOut: false,
      };
    });
  });
}

/** The parts of an SPI bus as they are selected: alone, or as chains in the order of the wire. */
function groupsOf(plan: Plan, sheets: Sheets, bus: Bus): readonly (readonly Placement[])[] {
  const chains = chainsOf(plan, sheets);
  const seen = new Set<string>();
  return bus.members.flatMap((member) => {
    if (seen.has(member.id)) return [];
    const chain = chains.find((c) => c.members.some((m) => m.id === member.id))?.members ?? [member];
    const own = chain.filter((m) => !seen.has(m.id));
    for (const one of own) seen.add(one.id);
    return [own];
  });
}

/** The report of an SPI bus: chip selects, maximum clock of each device and its limiting factor, access times. */
export function spiReport(plan: Plan, sheets: Sheets, board: IndexedBoard, bus: Bus): SpiReport {
  const home = connectedComponentOf(plan, sheets, bus.members[0]?.id ?? '');
  const known = remembered(home, sheets);
  let sheet = known.get(bus.id);
  if (!sheet) known.set(bus.id, (sheet = makeSheet(home, sheets, board, bus)));
  return sheet;
}

/** Memoised per plan: three checks, the budgets and the view use it. */
const remembered = memoizeByPair((_plan: Plan, _sheets: Sheets) => new Map<string, SpiReport>());

function makeSheet(plan: Plan, sheets: Sheets, board: IndexedBoard, bus: Bus): SpiReport {
  const controller = bus.controller === undefined ? undefined : board.controllers.get(bus.controller);
  const settings = plan.busSettings[bus.controller ?? ''];
  const common: Common = {
    controllerHz: controller && controllerHz(controller, bus.pins),
    software: controller?.software === true,
    setHz: settings?.hz,
    wireCm: settings?.wireCm ?? USUAL_SPI_CM,
    softwareHz: controller?.software ? undefined : board.sheet.software?.spiHz,
  };
  const groups = groupsOf(plan, sheets, bus);
  const rows = groups.flatMap((members) => [
    rowOf({ plan, sheets, board }, members, common),
    ...furtherRows(plan, sheets, members, common),
  ]);
  const card = groups.flat().find((p) => partSheet(sheets, p.sheet)?.sheet.family === 'storage');
  const known = rows.filter((row) => row.modes.length > 0);
  return {
    bus,
    controllerHz: common.controllerHz,
    softwareHz: common.softwareHz,
    wireCm: common.wireCm,
    rows,
    share: rows.reduce((sum, row) => sum + (row.time?.share ?? 0), 0),
    commonMode: [0, 1, 2, 3].find((mode) => known.every((row) => row.modes.includes(mode))),
    cardShares: card && groups.length > 1 ? card.id : undefined,
  };
}
