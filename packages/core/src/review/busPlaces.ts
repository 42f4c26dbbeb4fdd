import { isUsualAt } from '../allocate/usual';
import { editsOnto, editsOntoFree, lineTerminals } from '../allocate/moveBus';
import { type PinSet, pinSetsOf } from '../allocate/pinSets';
import { ontoSoftware } from '../allocate/softwareBus';
import type { Finding } from '../checks/check';
import { busClock } from '../electrics/busClock';
import { spiSheet } from '../electrics/spiBus';
import { type Bus, findBuses } from '../nets/buses';
import { isLegalSet, legalControllers } from '../nets/controllers';
import { findNets } from '../nets/nets';
import type { PlanTerminal } from '../nets/terminals';
import { boardOf, type Edit } from '../plan/edit';
import type { Plan } from '../plan/plan';
import { notedSheets } from '../sheets/notedSheets';
import { PIN_ROLES, type Role } from '../sheets/roles';
import type { SoftwareBusId } from '../sheets/softwareBuses';
import type { IndexedBoard, Sheets } from '../sheets/sheetIndex';
import { previewEdits } from './previewEdits';

/** What a bus comes to at one place. */
export interface BusSpeed {
  /** The clock in hertz; undefined for a bus without a controller. */
  readonly hz: number | undefined;
  /** Frames per second of the slowest display on it. */
  readonly framesPerSecond: number | undefined;
}

/** A place where a bus can be put, with what it costs. */
export interface BusPlace {
  readonly controller: string;
  readonly title: string;
  readonly pins: { readonly [line: string]: string };
  readonly software: boolean;
  /** The pins that people and example programs use first. */
  readonly usual: boolean;
  /** The parts of another bus that is there already. */
  readonly joins: readonly string[];
  readonly edits: readonly Edit[];
  readonly moved: number;
  readonly speed: BusSpeed;
  /** Errors and warnings that come and that go. */
  readonly added: readonly Finding[];
  readonly gone: readonly Finding[];
}

export interface BusPlaces {
  readonly now: BusSpeed;
  /** Hardware before software, then fewest errors and warnings, then fewest moved wires. */
  readonly places: readonly BusPlace[];
  /** Legal places that another signal or a locked wire is in the way of. */
  readonly blocked: number;
}

/** Places of one crossbar or free choice that are listed: the rest differ in their pins only. */
const EACH = 4;

const isGrave = ({ level }: Finding): boolean => level !== 'hint';

/** Errors and warnings that are not among others under another name: a conflict that moves along with the bus is neither new nor gone. */
function without(findings: readonly Finding[], others: readonly Finding[]): readonly Finding[] {
  const left = others.map(({ code, message }) => `${code}/${message}`);
  return findings.filter((finding) => {
    const at = left.indexOf(`${finding.code}/${finding.message}`);
    if (at >= 0) left.splice(at, 1);
    return isGrave(finding) && at < 0;
  });
}

function speedOf(plan: Plan, sheets: Sheets, board: IndexedBoard, bus: Bus | undefined): BusSpeed {
  if (bus?.controller === undefined) return { hz: undefined, framesPerSecond: undefined };
  if (bus.kind === 'uart') return { hz: board.controllers.get(bus.controller)?.maxHz, framesPerSecond: undefined };
  if (bus.kind === 'i2c') return { hz: busClock(plan, sheets, bus).hz, framesPerSecond: undefined };
  const { rows } = spiSheet(plan, sheets, board, bus);
  const frames = rows.flatMap((row) => (row.what === 'frame' && row.time ? [row.time.mostPerSecond] : []));
  return { hz: Math.min(...rows.map((row) => row.write.hz)), framesPerSecond: frames.length > 0 ? Math.min(...frames) : undefined };
}

/** Preferences for a controller where the pins alone do not lead to it; those for another one go. */
function wishesFor(plan: Plan, items: readonly PlanTerminal[], controller: string, isClear: boolean): readonly Edit[] {
  // A line on its way through a level shifter follows the part behind it.
  return items
    .filter((item) => !item.carries)
    .flatMap(({ key, placement, terminal }): Edit[] => {
      const { controller: was, ...rest } = plan.wishes[key] ?? {};
      const wanted = isClear ? undefined : controller;
      if (was === wanted) return [];
      const wish = wanted === undefined ? rest : { ...rest, controller: wanted };
      return [{ kind: 'wish', placement: placement.id, terminal: terminal.id, wish: Object.keys(wish).length > 0 ? wish : null }];
    });
}

/** Every place where a bus can be put: each controller with its legal pins, the bus of other parts, and by software on free pins.
 *  @returns undefined where the bus is not of this plan */
export function busPlaces(plan: Plan, kept: Sheets, id: string): BusPlaces | undefined {
  const sheets = notedSheets(kept, plan.benchNotes);
  const board = boardOf(plan, sheets);
  const buses = findBuses(plan, sheets);
  const bus = buses.find((one) => one.id === id);
  if (!board || !bus) return undefined;
  const nets = findNets(plan, sheets);
  const items = lineTerminals(plan, sheets, bus.members, bus.kind);
  const lines = new Set(items.map((item) => PIN_ROLES[item.terminal.role]!.line!.line));
  const ownLines = ({ pins }: PinSet) => Object.fromEntries(Object.entries(pins).filter(([line]) => lines.has(line)));
  const leaves: readonly Edit[] = plan.softwareBuses.includes(bus.controller as SoftwareBusId)
    ? [{ kind: 'software-bus', bus: bus.controller as SoftwareBusId, on: false }]
    : [];
  let blocked = 0;
  const placeOf = (found: Pick<BusPlace, 'controller' | 'title' | 'pins' | 'software' | 'joins' | 'edits'>): BusPlace[] => {
    const result = previewEdits(plan, found.edits, sheets);
    if (!result.ok) return [];
    const { plan: after, wires, added, gone } = result.preview;
    const there = findBuses(after, sheets).find(
      ({ kind, members }) => kind === bus.kind && members.some((m) => m.id === bus.members[0]!.id),
    );
    if (there?.controller === undefined) return [];
    const usual = Object.entries(found.pins).every(([line, pin]) => isUsualAt(board, `${bus.kind}.${line}` as Role, pin));
    return [
      {
        ...found,
        usual,
        moved: wires.length,
        speed: speedOf(after, sheets, boardOf(after, sheets)!, there),
        added: without(added, gone),
        gone: without(gone, added),
      },
    ];
  };
  const taken = new Set(buses.filter((one) => one !== bus && one.controller !== undefined).map((one) => one.controller!));
  const counts = new Map<string, number>();
  const seen = new Set<string>();
  const free = pinSetsOf(board, bus.kind).flatMap((set): BusPlace[] => {
    const { title, software, legal } = board.controllers.get(set.controller)!;
    const isHere = Object.entries(ownLines(set)).every(([line, pin]) => bus.pins[line] === pin);
    if (software || taken.has(set.controller) || (isHere && set.controller === bus.controller)) return [];
    // Sets that differ in a chip select only are one place.
    const name = `${set.controller} ${Object.values(ownLines(set)).join(' ')}`;
    if (seen.has(name)) return [];
    seen.add(name);
    const count = counts.get(set.controller) ?? 0;
    if (legal.rule !== 'sets' && count >= EACH) return [];
    const edits = editsOntoFree(board, nets, items, set);
    if (!edits) {
      blocked += 1;
      return [];
    }
    counts.set(set.controller, count + 1);
    const wished = wishesFor(plan, items, set.controller, legalControllers(board, bus.kind, ownLines(set)).length === 1);
    return placeOf({
      controller: set.controller,
      title,
      pins: ownLines(set),
      software: false,
      joins: [],
      edits: [...edits, ...leaves, ...wished],
    });
  });
  const joins = buses.flatMap((other): BusPlace[] => {
    if (other === bus || other.kind !== bus.kind || bus.kind === 'uart' || other.controller === undefined) return [];
    const controller = board.controllers.get(other.controller)!;
    if (!isLegalSet(board, controller, other.pins)) return [];
    const edits = editsOnto(board, nets, items, { controller: controller.id, pins: other.pins });
    if (!edits || edits.length === 0) return [];
    return placeOf({
      controller: controller.id,
      title: controller.title,
      pins: other.pins,
      software: controller.software === true,
      joins: other.members.map((m) => m.id),
      edits: [...edits, ...leaves, ...wishesFor(plan, items, controller.id, true)],
    });
  });
  const soft = leaves.length > 0 ? undefined : ontoSoftware(plan, sheets, bus.members, bus.kind);
  const bySoftware = soft
    ? placeOf({
        controller: soft.bus,
        title: `Software ${bus.kind.toUpperCase()}`,
        pins: soft.pins,
        software: true,
        joins: [],
        edits: [...soft.edits, ...wishesFor(plan, items, soft.bus, false)],
      })
    : [];
  return {
    now: speedOf(plan, sheets, board, bus),
    places: [...joins, ...free, ...bySoftware].toSorted(
      (a, b) => Number(a.software) - Number(b.software) || a.added.length - b.added.length || a.moved - b.moved,
    ),
    blocked,
  };
}
