import { has } from '../../collections/has';
import { firstOrThrow } from '../../collections/orThrow';
import { USUAL_TOLERANCE } from '../../quantity/tolerance';
import { isMovable } from '../../assign/behindShifter';
import { type LineToTranslate, packShifterChannels, type PackedShifters } from '../../assign/packShifterChannels';
import { railsFor, refeed } from '../../assign/fit/railFit';
import { divide } from '../../electrics/formulas/dividers';
import { type LevelPair, levelPairs, type LevelVerdict } from '../../electrics/reports/levels';
import { boardSide, partSide } from '../../electrics/reports/levelSides';
import { passThroughSource } from '../../nets/passThrough';
import { type PlanTerminal, planTerminals, terminalsOf } from '../../nets/terminals';
import { applyEdits } from '../../plan/applyEdits';
import type { Edit } from '../../plan/edit';
import { endKey, type Plan, splitKey, type TerminalKey, type WireEnd } from '../../plan/plan';
import { valuesWithin } from '../../quantity/series';
import type { PartSheet } from '../../sheets/partSheet';
import { PIN_ROLES } from '../../sheets/roles';
import type { CheckContext, Datum, Remedy } from '../engine/check';
import { signalRail } from '../levels/signalRail';

/** Default bit rate of serial parts in bit/s. */
const USUAL_BAUD = 115_200;
/** A line is taken for so many times its frequency of PWM: its edges must be short against a pulse. */
const EDGES = 20;
/** What the input of a pin and ten centimetres of wire are, in farads. */
const LINE_FARADS = 25e-12;
/** Both resistors of a divider together, in ohms: first those that take little current, then those that are fast. */
const DIVIDERS = [
  { min: 10e3, max: 50e3 },
  { min: 3e3, max: 10e3 },
  { min: 1e3, max: 3e3 },
] as const;

/** What a line must carry for its part to work at all, in hertz. */
export function requiredHz({ part, terminal }: Pick<PlanTerminal, 'part' | 'terminal'>): number {
  if (part.bus.fixedHz && terminal.direction === 'in') return part.bus.fixedHz;
  if (terminal.role === 'uart.tx' || terminal.role === 'uart.rx') return USUAL_BAUD;
  return terminal.role === 'pwm.out' ? (terminal.pwmHz?.min ?? 0) * EDGES : 0;
}

/** The bit rate of a data or clock line: the lower maximum of part and board. */
export function typicalHz({ board }: Pick<CheckContext, 'board'>, item: Pick<PlanTerminal, 'part' | 'terminal'>): number {
  const { bus } = item.part;
  const fastest = Math.max(...[...board.controllers.values()].map((c) => (c.kind === 'spi' ? c.maxHz : 0)), 1e6);
  const kind = PIN_ROLES[item.terminal.role]?.line?.kind;
  const line = kind === 'spi' || (bus.kind === 'private' && item.terminal.role === 'gpio.out') ? bus.maxWriteHz : undefined;
  return Math.max(requiredHz(item), Math.min(fastest, line ?? (kind === 'spi' ? 1e6 : 0)));
}

const isBad = (verdict: LevelVerdict): boolean => verdict === 'damage' || verdict === 'none';

/** The signals of a plan with a level finding. */
export const badPairs = (context: Pick<CheckContext, 'plan' | 'sheets'>): readonly LevelPair[] =>
  levelPairs(context.plan, context.sheets).filter(({ verdict }) => isBad(verdict));

const wayOf = ({ terminal }: PlanTerminal): LineToTranslate['way'] =>
  terminal.direction === 'in' ? 'to-part' : terminal.direction === 'out' ? 'to-board' : 'both';

/** Lines as they cross: those at one pin go together. */
function crossingsOf(
  context: CheckContext,
  items: readonly PlanTerminal[],
  pinOf: (item: PlanTerminal) => string | undefined,
): readonly LineToTranslate[] {
  const byPin = new Map<string, PlanTerminal[]>();
  for (const item of items) {
    const pin = pinOf(item);
    if (pin !== undefined) byPin.set(pin, [...(byPin.get(pin) ?? []), item]);
  }
  return [...byPin].map(([pin, own]): LineToTranslate => {
    const ways = new Set(own.map(wayOf));
    const there = context.nets.byPin.get(pin)?.terminals ?? [];
    return {
      keys: own.map((item) => item.key),
      pin: { to: 'pin', pin },
      way: ways.size === 1 ? firstOrThrow([...ways]) : 'both',
      hz: Math.max(...own.map((item) => typicalHz(context, item))),
      sharesLine: there.some((t) => t.terminal.direction !== 'in' && !own.some((item) => item.key === t.key)),
    };
  });
}

const atPin = (item: PlanTerminal): string | undefined => {
  const end = item.wire?.end as WireEnd;
  return end?.to === 'pin' ? end.pin : undefined;
};

/** All signals at the pins of these lines with the same finding and rail, which are shifted together. */
function withNeighbours(context: CheckContext, items: readonly PlanTerminal[], feed: string): readonly PlanTerminal[] {
  const { plan, sheets } = context;
  const bad = new Set(badPairs(context).map((pair) => pair.key));
  const pins = new Set(items.filter(has('wire')).map((item) => endKey(item.wire.end)));
  const lines = new Set(items.flatMap((item) => PIN_ROLES[item.terminal.role]?.line?.kind ?? []));
  const ids = new Set(items.map((item) => item.placement.id));
  return planTerminals(plan, sheets).filter((item) => {
    if (!item.wire || item.part.levelShifter || !item.part.supply || signalRail(context, item.placement.id) !== feed) return false;
    const kind = PIN_ROLES[item.terminal.role]?.line?.kind;
    // Both lines of a two-wire bus, whichever is in trouble.
    if (kind === 'i2c' && lines.has('i2c') && ids.has(item.placement.id)) return true;
    return pins.has(endKey(item.wire.end)) && (bad.has(item.key) || ids.has(item.placement.id));
  });
}

/** Whether edits leave these parts, and everything that the edits bring, without trouble of this kind. */
function solves(context: CheckContext, edits: readonly Edit[], ids: readonly string[], verdicts: readonly LevelVerdict[]): boolean {
  const after = applyEdits(context.plan, edits, context.sheets);
  if (!after.ok) return false;
  const had = new Set(badPairs(context).map((pair) => `${pair.key} ${pair.way}`));
  return levelPairs(after.plan, context.sheets).every(
    (pair) =>
      !(ids.includes(pair.placement) && verdicts.includes(pair.verdict)) && (!isBad(pair.verdict) || had.has(`${pair.key} ${pair.way}`)),
  );
}

/** "Feed it from the lower rail": the simplest way out where its range allows. */
function otherRail(context: CheckContext, id: string, verdicts: readonly LevelVerdict[]): readonly Remedy[] {
  const { plan, sheets, board } = context;
  const supplies = terminalsOf(plan, { id }, sheets)
    .filter(has('wire'))
    .filter((t) => t.terminal.role === 'supply.vcc' && t.wire.end.to === 'rail');
  const [supply] = supplies;
  if (!supply || supplies.length > 1 || supply.wire.locked || supply.placement.onBoard || supply.part.levelShifter) return [];
  const now = endKey(supply.wire.end);
  for (const rail of railsFor(board, supply.part, supply.terminal)) {
    const end: WireEnd = { to: 'rail', rail: rail.id };
    if (endKey(end) === now || rail.direction === 'in') continue;
    const edits = refeed(plan, supply, supply.terminal.id, rail);
    if (!solves(context, edits, [id], verdicts)) continue;
    return [{ label: 'feed', data: { placement: { is: 'placement', id }, rail: { is: 'rail', rail: rail.id } }, grade: 'offered', edits }];
  }
  return [];
}

/** A line of the board's that two resistors bring down, or nothing where no values on hand do. */
function dividerEdits(context: CheckContext, item: PlanTerminal): readonly Edit[] | undefined {
  const { plan, board } = context;
  if (wayOf(item) !== 'to-board' || plan.pulls[item.key] || plan.series[item.key]) return undefined;
  const { driver } = partSide(context, item, false);
  const { receiver } = boardSide(board, atPin(item));
  const vihMin = 'volts' in receiver.vih ? receiver.vih.volts : receiver.vih.ratio * receiver.feed.volts.max;
  const output = { min: vihMin, max: receiver.toleratedVolts ?? receiver.feed.volts.min + receiver.above };
  if (!(output.max > output.min)) return undefined;
  const { bus } = item.part;
  const bits =
    2 * Math.max(requiredHz(item), PIN_ROLES[item.terminal.role]?.line?.kind === 'spi' ? (bus.maxReadHz ?? bus.maxWriteHz ?? 1e6) : 0);
  for (const total of DIVIDERS) {
    const values = valuesWithin(plan.valuesOnHand, 330, 47e3);
    const { best } = divide({ input: driver.feed.volts, output, farads: LINE_FARADS, tolerance: USUAL_TOLERANCE, values, total });
    if (!best || best.mostBitsPerSecond < bits) continue;
    const at = { placement: item.placement.id, terminal: item.terminal.id };
    return [
      { kind: 'series', ...at, ohms: best.top },
      { kind: 'pull', ...at, pull: { ohms: best.bottom, to: 'ground' } },
    ];
  }
  return undefined;
}

/** More dividers than this and a buffer is less work. */
const MOST_DIVIDERS = 2;

const partsOf = (packed: PackedShifters | undefined): Datum => ({
  is: 'parts',
  ids: (packed?.modules ?? []).map(({ part }: { readonly part: PartSheet }) => part.id),
});

function across(context: CheckContext, items: readonly PlanTerminal[], feed: string, verdicts: readonly LevelVerdict[]): readonly Remedy[] {
  const ids = [...new Set(items.map((item) => item.placement.id))];
  const lines = withNeighbours(context, items, feed);
  if (!lines.every(isMovable)) return [];
  const found: Remedy[] = [];
  const down = lines.filter((item) => wayOf(item) === 'to-board');
  const dividers = down.length > 0 && down.length <= MOST_DIVIDERS ? down.map((item) => dividerEdits(context, item)) : [undefined];
  if (dividers.every((edits) => edits !== undefined)) {
    const rest = lines.filter((item) => !down.includes(item));
    const packed = rest.length > 0 ? packShifterChannels(context, feed, crossingsOf(context, rest, atPin)) : undefined;
    const edits = [...dividers.flat(), ...(packed?.edits ?? [])];
    if ((rest.length === 0 || packed) && solves(context, edits, ids, verdicts))
      found.push({
        label: rest.length === 0 ? 'divide' : 'divide-and-shift',
        data: { lines: { is: 'labels', keys: down.map((item) => item.key) }, modules: partsOf(packed) },
        grade: 'offered',
        edits,
      });
  }
  const crossings = crossingsOf(context, lines, atPin);
  const packed = packShifterChannels(context, feed, crossings);
  const count: Datum = { is: 'count', value: crossings.length, noun: 'line' };
  if (packed && solves(context, packed.edits, ids, verdicts))
    found.push({
      label: packed.modules.some((m) => m.added) ? 'shift' : 'shift-there',
      data: {
        count,
        modules: packed.modules.some((m) => m.added) ? partsOf(packed) : { is: 'placements', ids: packed.modules.map((m) => m.placement) },
      },
      grade: 'offered',
      edits: packed.edits,
    });
  return found;
}

export const LEVEL_TRANSLATION_REMEDIES = {
  feed: 'Power {placement} from {rail}',
  divide: 'Add a voltage divider at {lines}',
  'divide-and-shift': 'Add a voltage divider at {lines}, level-shift the others with {modules}',
  shift: 'Level-shift {count} with {modules}',
  'shift-there': 'Level-shift {count} with free channels of {modules}',
} as const;

/** The ways across for the signals of a part, each solved and checked: another rail, dividers, level shifters.
 *  @param verdicts what must be gone afterwards */
export function translateLevels(
  context: CheckContext,
  id: string,
  keys: readonly TerminalKey[],
  verdicts: readonly LevelVerdict[],
): readonly Remedy[] {
  const feed = signalRail(context, id);
  // All of the part's lines that are in trouble, whichever way they go: what helps must help them together.
  const bad = new Set([...keys, ...badPairs(context).flatMap((pair) => (pair.placement === id ? [pair.key] : []))]);
  const items = terminalsOf(context.plan, { id }, context.sheets).filter((t) => bad.has(t.key) && !t.part.levelShifter);
  if (feed === undefined || items.length === 0) return [];
  const atBoard = items.filter((item) => atPin(item) !== undefined);
  return [...otherRail(context, id, verdicts), ...(atBoard.length === items.length ? across(context, items, feed, verdicts) : [])];
}

/** Every part that has trouble taken across together, rail by rail: fewer modules than one after another. Undefined where there is none, or
 *  some line does not go. */
export function translateAll(
  context: CheckContext,
): { readonly edits: readonly Edit[]; readonly modules: PackedShifters['modules'] } | undefined {
  const { plan, sheets, board } = context;
  const bad = new Set(badPairs(context).map((pair) => pair.key));
  const items = planTerminals(plan, sheets).filter((item) => bad.has(item.key) && !item.part.levelShifter && atPin(item) !== undefined);
  const byFeed = new Map<string, PlanTerminal[]>();
  for (const item of items) {
    const feed = signalRail(context, item.placement.id);
    if (feed === undefined) return undefined;
    byFeed.set(feed, [...(byFeed.get(feed) ?? []), item]);
  }
  let now: Plan = plan;
  const edits: Edit[] = [];
  const modules: PackedShifters['modules'][number][] = [];
  for (const [feed, own] of byFeed) {
    const lines = withNeighbours(context, own, feed);
    const packed = lines.every(isMovable)
      ? packShifterChannels({ plan: now, sheets, board }, feed, crossingsOf(context, lines, atPin))
      : undefined;
    const next = packed && applyEdits(now, packed.edits, sheets);
    if (!packed || !next?.ok) return undefined;
    now = next.plan;
    edits.push(...packed.edits);
    modules.push(...packed.modules);
  }
  return edits.length > 0 && solves(context, edits, [...new Set(items.map((i) => i.placement.id))], ['damage', 'none'])
    ? { edits, modules }
    : undefined;
}

/** Lines that go through a level shifter now, taken through others that carry them; the one they leave goes, too, where nothing else uses
 *  it. Nothing where no sheet has one that does. */
export function repacked(
  context: CheckContext,
  shifter: string,
  keys: readonly TerminalKey[],
): { readonly edits: readonly Edit[]; readonly modules: Datum } | undefined {
  const { plan, sheets, board } = context;
  const items = planTerminals(plan, sheets).filter((item) => keys.includes(item.key) && !item.wire?.locked);
  const feed = items[0] && signalRail(context, items[0].placement.id);
  if (items.length !== keys.length || feed === undefined) return undefined;
  const pinOf = (item: PlanTerminal): string | undefined => {
    const carrier = passThroughSource(plan, sheets, item.key);
    const end = carrier === undefined ? undefined : plan.wires[carrier]?.end;
    return end?.to === 'pin' ? end.pin : undefined;
  };
  const crossings = crossingsOf(context, items, pinOf);
  if (crossings.length === 0 || items.some((item) => pinOf(item) === undefined)) return undefined;
  const carriers = [...new Set(items.flatMap((item) => passThroughSource(plan, sheets, item.key) ?? []))];
  const others = Object.entries(plan.wires).filter(
    ([key, { end }]) => end.to === 'terminal' && end.placement === shifter && !keys.includes(key),
  );
  const free: readonly Edit[] = [
    ...items.map((item): Edit => ({ kind: 'unwire', placement: item.placement.id, terminal: item.terminal.id })),
    ...(others.length === 0
      ? [{ kind: 'remove-placement' as const, placement: shifter }]
      : carriers.map((key): Edit => ({ kind: 'unwire', ...splitKey(key) }))),
  ];
  const bare = applyEdits(plan, free, sheets);
  const packed = bare.ok ? packShifterChannels({ plan: bare.plan, sheets, board }, feed, crossings) : undefined;
  return packed && { edits: [...free, ...packed.edits], modules: partsOf(packed) };
}
