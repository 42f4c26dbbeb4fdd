import type { PlanContext, PlanOnBoard } from '../../plan/planContext';
import { firstOrThrow, getOrThrow } from '../../collections/orThrow';
import type { BoardPin } from '../../sheets/boardSheet';
import { softwareKind } from '../../sheets/softwareBuses';
import { busLineOf, CONTROLLER_KINDS, type ControllerKind, PIN_ROLES } from '../../sheets/roles';
import type { IndexedBoard, Sheets } from '../../sheets/sheetIndex';
import { reachedFrom } from '../../nets/channels';
import { linePins } from '../../nets/controllers';
import { type PlanTerminal, signalOf } from '../../nets/terminals';
import { type Plan, splitKey } from '../../plan/plan';
import { abilitiesFor, type Ability, bootsWith, type Waste, wasteOn } from './abilities';
import { isCautionFor, isCautionForLine } from '../fit/pinUse';
import { addressOptions, presentAddresses } from '../addresses/addressOptions';
import type { BusController, Candidate, Costs, Instance, Item, LinePin, Member, Resource } from './instance';
import { resourcesAt, unlikePwm } from './sharedResources';
import { fitsBeside, NOTHING, type Occupied, occupiedBy, pinOf } from './occupied';
import { adcBlocked, pinFits } from '../fit/pinFit';
import { type InstanceScope, terminalsToPlace, type TerminalToPlace } from './terminalsToPlace';
import { usualPins } from '../fit/usual';
import { INSTANCE_LIMITS } from './weights';
import { groupsOf, wishedControllers, wishedLines, wishedPins } from './wishes';

/** What belongs to one choice of pin or controller. */
interface Wanted {
  readonly items: ReadonlyMap<string, readonly TerminalToPlace[]>;
  readonly members: ReadonlyMap<string, readonly TerminalToPlace[]>;
}

function collect(terminals: readonly TerminalToPlace[]): Wanted {
  const [items, members] = [new Map<string, TerminalToPlace[]>(), new Map<string, TerminalToPlace[]>()];
  for (const item of terminals) {
    const kind = PIN_ROLES[item.terminal.role]?.line?.kind;
    const [into, key] = kind ? [members, item.bus ?? `${item.head}:${kind}`] : [items, signalOf(item)];
    const known = into.get(key);
    if (known) known.push(item);
    else into.set(key, [item]);
  }
  return { items, members };
}

const leaveCosts = (terminals: readonly PlanTerminal[]): Pick<Costs, 'unwired' | 'moved'> => ({
  unwired: terminals.filter((t) => t.terminal.need === 'needed').length,
  // To take a wire away is worse than to move it: what it was for is lost.
  moved: 2 * terminals.filter((t) => t.wire?.end.to === 'pin').length,
});

const unionOf = (terminals: readonly PlanTerminal[]): ReadonlySet<Ability> =>
  new Set(terminals.flatMap((t) => [...abilitiesFor(t.terminal)]));

/** The controller for which this pin, as an input, would be pulled out of its role: a hardware select. */
function blockedBy(pin: BoardPin, terminals: readonly PlanTerminal[]): string | undefined {
  if (
    !pin.duties?.some((d) => d.duty === 'select') ||
    terminals.every((t) => PIN_ROLES[t.terminal.role]?.output && !PIN_ROLES[t.terminal.role]?.input)
  )
    return undefined;
  const name = pin.functions?.find((f) => f.endsWith('.cs'));
  return name?.slice(0, name.indexOf('.'));
}

/** What the pins of a board are worth to others, and what is at them. */
interface PinsNow {
  readonly waste: Waste;
  readonly occupied: Occupied;
}

function itemOf({ plan, board }: PlanOnBoard, { waste, occupied }: PinsNow, id: string, terminals: readonly TerminalToPlace[]): Item {
  const locked = terminals.find((t) => t.fixed);
  const used = unionOf(terminals);
  const moved = (pin: string) => terminals.filter((t) => pinOf(board, t) !== undefined && pinOf(board, t) !== pin).length;
  const fits = terminals.map((t) => pinFits(board, t.terminal));
  const unusual = (pin: string) => Math.max(0, ...terminals.map((t) => usualPins(board).signal(t.terminal.role, pin)));
  const pins = board.ioPins.filter((pin) =>
    locked
      ? pin.id === pinOf(board, locked)
      : !adcBlocked(plan, board, pin, terminals) &&
        fits.every((fit) => fit.get(pin.id)?.verdict !== 'cannot') &&
        terminals.every((t) => bootsWith(pin, t.part, t.terminal)),
  );
  const all = pins.map((pin): Candidate => {
    const uses = resourcesAt(pin, terminals);
    const unless = locked ? undefined : blockedBy(pin, terminals);
    return {
      pin: pin.id,
      moved: moved(pin.id),
      caution: terminals.some((t) => isCautionFor(pin, t.terminal)) ? 1 : 0,
      unusual: unusual(pin.id),
      waste: waste(pin.id, used),
      ...(uses.length > 0 ? { uses } : {}),
      ...(unless ? { unless } : {}),
    };
  });
  const free = all.filter((candidate) => fitsBeside(occupied, id, terminals, candidate));
  const candidates = locked ? all : wishedPins(plan, terminals, free);
  return { id, terminals: terminals.map((t) => t.key), candidates, leave: leaveCosts(terminals) };
}

const lineOf = (item: PlanTerminal): string => busLineOf(item.terminal.role).line;

/** The addresses that a member can have (of what stays as it is, those that it has), and those behind its channels. */
function addressesOf(
  { plan, sheets, board }: PlanContext,
  terminals: readonly TerminalToPlace[],
  freeze: boolean,
): Pick<Member, 'addresses' | 'beyond'> {
  const carried = terminals.flatMap((t) => t.carries ?? []).map((key) => splitKey(key).placement);
  const own = [...new Map(terminals.map((t) => [t.placement.id, t])).values()];
  const stay = carried.length > 0 || (freeze && own.every((t) => t.fixed));
  const placements = carried.length > 0 ? plan.placements.filter((p) => carried.includes(p.id)) : own.map((t) => t.placement);
  const beyond = presentAddresses(plan, sheets, reachedFrom(plan, sheets, placements));
  const besides = (taken: readonly number[]) => (taken.length > 0 ? { beyond: taken } : {});
  if (!stay) return { addresses: addressOptions({ plan, board }, firstOrThrow(own)), ...besides(beyond) };
  const present = presentAddresses(plan, sheets, placements);
  return {
    addresses: present.length > 0 ? [{ addresses: present, straps: {}, moved: 0 }] : [],
    // What meets already among those that stay is not for this instance to part.
    ...besides(beyond.filter((address) => !present.includes(address))),
  };
}

function memberOf(
  context: PlanContext,
  controllers: readonly BusController[],
  id: string,
  terminals: readonly TerminalToPlace[],
  freeze: boolean,
): Member {
  const { plan, board } = context;
  const kind = busLineOf(firstOrThrow(terminals).terminal.role).kind;
  const here: { [line: string]: { [pin: string]: number } } = {};
  const fixed: { [line: string]: string } = {};
  for (const item of terminals) {
    const pin = pinOf(board, item);
    if (pin === undefined) continue;
    const line = (here[lineOf(item)] ??= {});
    line[pin] = (line[pin] ?? 0) + 1;
    if (item.fixed) fixed[lineOf(item)] = pin;
  }
  const lines = [...new Set(terminals.map(lineOf))];
  const wished = wishedLines(
    plan,
    terminals.filter((t) => !t.fixed),
    lineOf,
  );
  const holds = (controller: BusController, fixed: { readonly [line: string]: string }) =>
    controller.kind === kind &&
    lines.every((line) => controller.lines[line]?.some((p) => fixed[line] === undefined || p.pin === fixed[line])) &&
    (!controller.sets ||
      controller.sets.some((set) =>
        lines.every((line) => set[line] !== undefined && (fixed[line] === undefined || set[line] === fixed[line])),
      ));
  const able = controllers.filter((controller) => holds(controller, fixed));
  // A preference for pins of different controllers does not exclude the part.
  const both = { ...wished.fixed, ...fixed };
  const wishing = able.filter((controller) => holds(controller, both));
  const met = wishing.length > 0;
  const placements = [...new Set(terminals.map((t) => t.placement.id))];
  return {
    id,
    kind,
    placements,
    lines,
    controllers: wishedControllers(plan, terminals, met ? wishing : able).map((c) => c.id),
    fixed: met ? both : fixed,
    ...(Object.keys(wished.avoid).length > 0 ? { avoid: wished.avoid } : {}),
    here,
    ...(kind === 'i2c' ? addressesOf(context, terminals, freeze) : { addresses: [] }),
    leave: leaveCosts(terminals),
  };
}

/** The lines of a kind that at least one member has, with the pins listed in the sheet. */
function controllersOf(
  board: IndexedBoard,
  { waste, occupied }: PinsNow,
  lines: ReadonlyMap<ControllerKind, ReadonlySet<string>>,
  locked: ReadonlySet<string>,
): readonly BusController[] {
  return board.sheet.controllers.list.flatMap((controller): BusController[] => {
    const wanted = lines.get(controller.kind);
    if (!wanted) return [];
    const used = new Set<Ability>([controller.kind]);
    const pinsOf = (line: string) =>
      linePins(board, controller.id, line)
        .filter(
          (pin) =>
            locked.has(pin.id) || (pin.grade !== 'reserved' && bootsAsLine(pin, controller.kind) && occupied.by(pin.id).length === 0),
        )
        .map((pin): LinePin => ({
          pin: pin.id,
          caution: isCautionForLine(pin, controller.kind, line) ? 1 : 0,
          unusual: usualPins(board).line(controller.id, line, pin.id),
          waste: waste(pin.id, used),
        }));
    const own = Object.fromEntries([...wanted].map((line) => [line, pinsOf(line)]));
    const legal = controller.legal.rule === 'sets' ? controller.legal.sets : undefined;
    // Sets that agree in the lines in use would be tried twice.
    const sets = legal && [
      ...new Map(
        legal
          .map((set) => Object.fromEntries(Object.entries(set).filter(([line]) => wanted.has(line))))
          .map((set) => [JSON.stringify(set), set]),
      ).values(),
    ];
    return [{ id: controller.id, kind: controller.kind, lines: own, ...(sets ? { sets } : {}) }];
  });
}

/** A bus line at a pin that is sampled at reset: I2C idles high; the idle level of other buses is unknown. */
function bootsAsLine(pin: BoardPin, kind: ControllerKind): boolean {
  return (pin.duties ?? []).every(
    ({ duty, level }) => duty !== 'boot' || level === undefined || (kind === 'i2c' ? level === 'high' : false),
  );
}

/** Whether a member is soldered to pins that the board uses itself and that no other part can use. */
function keepsToItself(board: IndexedBoard, member: Member, other: Member): boolean {
  return Object.entries(member.fixed).some(
    ([line, pin]) => board.pins.get(pin)?.grade === 'reserved' && other.lines.includes(line) && other.fixed[line] !== pin,
  );
}

/** Pairs that must not share a bus: parts without a select, parts that hold data-out, and two talkers on one serial line. */
function clashesOf(
  board: IndexedBoard,
  members: readonly Member[],
  terminals: ReadonlyMap<string, readonly PlanTerminal[]>,
): readonly (readonly [string, string])[] {
  const facts = members.map((member) => {
    const own = getOrThrow(terminals, member.id);
    return {
      member,
      bare: member.kind === 'spi' && own.some(({ part }) => part.bus.kind === 'spi' && part.bus.hasSelect === false),
      // A bus that stays as it is counts as one member: only the part that drives its data line can hold it.
      holds: member.kind === 'spi' && own.some((t) => lineOf(t) === 'miso' && t.part.bus.releasesDataOut === false),
    };
  });
  return facts.flatMap((a, at) =>
    facts.slice(at + 1).flatMap((b): (readonly [string, string])[] => {
      if (a.member.kind !== b.member.kind) return [];
      const shared = a.member.lines.filter((line) => b.member.lines.includes(line));
      const clash =
        (a.member.kind === 'uart' && shared.length > 0) ||
        a.bare ||
        b.bare ||
        ((a.holds || b.holds) && shared.includes('miso')) ||
        keepsToItself(board, a.member, b.member) ||
        keepsToItself(board, b.member, a.member);
      return clash ? [[a.member.id, b.member.id]] : [];
    }),
  );
}

/** Which users of shared resources exclude each other: on a channel and an interrupt line all, on a timer those of unlike frequencies. */
function resourcesOf(items: readonly Item[], terminals: ReadonlyMap<string, readonly PlanTerminal[]>): readonly Resource[] {
  const users = new Map<string, Set<string>>();
  const pins = new Map<string, Set<string>>();
  const put = (into: Map<string, Set<string>>, key: string, value: string) => {
    const known = into.get(key);
    if (known) known.add(value);
    else into.set(key, new Set([value]));
  };
  for (const item of items)
    for (const { pin, uses } of item.candidates)
      for (const id of uses ?? []) {
        put(users, id, item.id);
        put(pins, id, pin);
      }
  return [...users].flatMap(([id, known]): Resource[] => {
    // What comes out at one pin alone needs no rule of its own: a pin carries one item.
    if (getOrThrow(pins, id).size < 2) return [];
    const list = [...known];
    const all = list.flatMap((a, at) => list.slice(at + 1).map((b) => [a, b] as const));
    const pairs = id.startsWith('timer ') ? all.filter(([a, b]) => unlikePwm(getOrThrow(terminals, a), getOrThrow(terminals, b))) : all;
    return pairs.length > 0 ? [{ id, pairs }] : [];
  });
}

/** The allocation problem of a plan.
 *  Locked wires and soldered parts have one candidate, the pin they are at, whatever it is.
 *  Frozen, the instance leaves out all wired terminals that no open one can meet; their pins are not among the candidates. */
export function buildInstance(plan: Plan, sheets: Sheets, board: IndexedBoard, scope: InstanceScope = {}): Instance {
  const wanted = collect(terminalsToPlace(plan, sheets, board, scope));
  const occupied = scope.freeze ? occupiedBy(plan, sheets, board) : NOTHING;
  const waste = wasteOn(board);
  const items = [...wanted.items].map(([id, terminals]) => itemOf({ plan, board }, { waste, occupied }, id, terminals));
  const lines = new Map<ControllerKind, Set<string>>();
  for (const terminals of wanted.members.values())
    for (const t of terminals) {
      const { kind, line } = busLineOf(t.terminal.role);
      const known = lines.get(kind);
      if (known) known.add(line);
      else lines.set(kind, new Set([line]));
    }
  const locked = new Set(
    [...wanted.members.values()]
      .flat()
      .filter((t) => t.fixed)
      .flatMap((t) => pinOf(board, t) ?? []),
  );
  const controllers = controllersOf(board, { waste, occupied }, lines, locked);
  const members = [...wanted.members].map(([id, terminals]) =>
    memberOf({ plan, sheets, board }, controllers, id, terminals, scope.freeze === true),
  );
  const groups = scope.freeze ? [] : groupsOf(plan, board, items);
  const instance: Instance = {
    format: 'roof-chart-instance',
    version: 2,
    items,
    members: members.toSorted(
      (a, b) => CONTROLLER_KINDS.indexOf(a.kind as ControllerKind) - CONTROLLER_KINDS.indexOf(b.kind as ControllerKind),
    ),
    controllers,
    clashes: clashesOf(board, members, wanted.members),
    resources: resourcesOf(items, wanted.items),
    ...(groups.length > 0 ? { groups } : {}),
  };
  return mostUnusual(instance) > INSTANCE_LIMITS.unusual ? allUsual(instance) : instance;
}

/** The most that a choice can be unusual: each signal once, each line of each bus once. Signals that only keep off the pins of buses pay
 *  for each of those pins at most. */
function mostUnusual({ items, members, controllers }: Instance): number {
  const costly = new Set(items.flatMap(({ candidates }) => candidates.flatMap(({ pin, unusual }) => (unusual > 0 ? [pin] : []))));
  const dearest = (list: readonly { readonly unusual: number }[]) => Math.max(0, ...list.map(({ unusual }) => unusual));
  const kinds = new Map<string, number>();
  for (const { kind, lines } of members) kinds.set(kind, (kinds.get(kind) ?? 0) + lines.length);
  const lines = [...kinds].map(([kind, most]) => {
    const own = controllers.filter((c) => c.kind === kind).flatMap((c) => Object.values(c.lines));
    return Math.min(most, own.length) * Math.max(0, ...own.map(dearest));
  });
  const own = items.map(({ candidates }) => dearest(candidates));
  const far = own.filter((one) => one > 1);
  return [...far, ...lines, Math.min(own.length - far.length, costly.size)].reduce((sum, one) => sum + one, 0);
}

/** An instance of more buses and selects than any board has, in which nothing counts as unusual. */
const allUsual = (instance: Instance): Instance => ({
  ...instance,
  items: instance.items.map((item) => ({ ...item, candidates: item.candidates.map((c) => ({ ...c, unusual: 0 })) })),
  controllers: instance.controllers.map((c) => ({
    ...c,
    // A bus of the chip still comes before one that the program makes.
    lines: Object.fromEntries(
      Object.entries(c.lines).map(([line, pins]) => [line, pins.map((p) => ({ ...p, unusual: softwareKind(c.id) ? 1 : 0 }))]),
    ),
  })),
});
