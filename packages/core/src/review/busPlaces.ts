import { firstOrThrow, getOrThrow } from '../collections/orThrow';
import { isUsualAt } from '../assign/fit/usual';
import { editsOnto, editsOntoFree, lineTerminals } from '../assign/moveBus';
import { type PinSet, pinSetsOf } from '../assign/fit/pinSets';
import { ontoSoftware } from '../assign/softwareBus';
import type { Finding } from '../checks/engine/check';
import { busClock } from '../electrics/reports/busClock';
import { spiReport } from '../electrics/reports/spiReport';
import { type Bus, findBuses } from '../nets/buses';
import { isLegalSet, legalControllers } from '../nets/controllers';
import { findNets } from '../nets/nets';
import type { PlanTerminal } from '../nets/terminals';
import { boardOf, boardOrThrow, type Edit } from '../plan/edit';
import type { Plan } from '../plan/plan';
import { notedSheets } from '../sheets/notedSheets';
import { busLineOf, type Role } from '../sheets/roles';
import { softwareTitle } from '../sheets/softwareBuses';
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
  const { rows } = spiReport(plan, sheets, board, bus);
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

/** Edits that put the bus in a place, before they are tried. */
type Candidate = Pick<BusPlace, 'controller' | 'title' | 'pins' | 'software' | 'joins' | 'edits'>;

/** What the search for places looks at. */
interface Search {
  readonly plan: Plan;
  readonly sheets: Sheets;
  readonly board: IndexedBoard;
  readonly buses: readonly Bus[];
  readonly bus: Bus;
  readonly items: readonly PlanTerminal[];
  /** The software bus that is left. */
  readonly leaves: readonly Edit[];
}

/** The pins of a set without those of lines that the bus does not have, such as chip selects. */
function linesOf({ items }: Search, { pins }: PinSet): PinSet['pins'] {
  const lines = new Set(items.map((item) => busLineOf(item.terminal.role).line));
  return Object.fromEntries(Object.entries(pins).filter(([line]) => lines.has(line)));
}

/** Free pins of the controllers that no other bus has. Of a controller with a crossbar or a free choice the first few. */
function freePlaces(search: Search): { readonly found: readonly Candidate[]; readonly blocked: number } {
  const { plan, sheets, board, buses, bus, items, leaves } = search;
  const nets = findNets(plan, sheets);
  const taken = new Set(buses.flatMap((one) => (one !== bus && one.controller !== undefined ? [one.controller] : [])));
  const counts = new Map<string, number>();
  const seen = new Set<string>();
  const found: Candidate[] = [];
  let blocked = 0;
  for (const set of pinSetsOf(board, bus.kind)) {
    const { id, title, software, legal } = getOrThrow(board.controllers, set.controller);
    const pins = linesOf(search, set);
    const isHere = id === bus.controller && Object.entries(pins).every(([line, pin]) => bus.pins[line] === pin);
    // Sets that differ in a chip select only are one place.
    const name = `${id} ${Object.values(pins).join(' ')}`;
    if (software || taken.has(id) || isHere || seen.has(name)) continue;
    seen.add(name);
    const count = counts.get(id) ?? 0;
    if (legal.rule !== 'sets' && count >= EACH) continue;
    const edits = editsOntoFree(board, nets, items, set);
    if (!edits) {
      blocked += 1;
      continue;
    }
    counts.set(id, count + 1);
    const wished = wishesFor(plan, items, id, legalControllers(board, bus.kind, pins).length === 1);
    found.push({ controller: id, title, pins, software: false, joins: [], edits: [...edits, ...leaves, ...wished] });
  }
  return { found, blocked };
}

/** The other buses of its kind. Serial lines have one part at each end. */
function joinPlaces({ plan, sheets, board, buses, bus, items, leaves }: Search): readonly Candidate[] {
  if (bus.kind === 'uart') return [];
  const nets = findNets(plan, sheets);
  return buses.flatMap((other): Candidate[] => {
    if (other === bus || other.kind !== bus.kind || other.controller === undefined) return [];
    const controller = getOrThrow(board.controllers, other.controller);
    const { id, title, software = false } = controller;
    const edits = isLegalSet(board, controller, other.pins) ? editsOnto(board, nets, items, { controller: id, pins: other.pins }) : null;
    if (!edits || edits.length === 0) return [];
    const wished = wishesFor(plan, items, id, true);
    const joins = other.members.map((m) => m.id);
    return [{ controller: id, title, pins: other.pins, software, joins, edits: [...edits, ...leaves, ...wished] }];
  });
}

/** By software, for a bus that is not there yet. */
function softwarePlaces({ plan, sheets, bus, items, leaves }: Search): readonly Candidate[] {
  const soft = leaves.length > 0 ? undefined : ontoSoftware(plan, sheets, bus.members, bus.kind);
  if (!soft) return [];
  const edits = [...soft.edits, ...wishesFor(plan, items, soft.bus, false)];
  return [{ controller: soft.bus, title: softwareTitle(bus.kind), pins: soft.pins, software: true, joins: [], edits }];
}

/** The place with the clock, findings and wires that its edits lead to; none where they cannot be applied. */
function placeOf({ plan, sheets, board, bus }: Search, found: Candidate): readonly BusPlace[] {
  const result = previewEdits(plan, found.edits, sheets);
  if (!result.ok) return [];
  const { plan: after, wires, added, gone } = result.preview;
  const there = findBuses(after, sheets).find(
    ({ kind, members }) => kind === bus.kind && members.some((m) => m.id === firstOrThrow(bus.members).id),
  );
  if (there?.controller === undefined) return [];
  return [
    {
      ...found,
      usual: Object.entries(found.pins).every(([line, pin]) => isUsualAt(board, `${bus.kind}.${line}` as Role, pin)),
      moved: wires.length,
      speed: speedOf(after, sheets, boardOrThrow(after, sheets), there),
      added: without(added, gone),
      gone: without(gone, added),
    },
  ];
}

/** Every place where a bus can be put: each controller with its legal pins, the bus of other parts, and by software on free pins.
 *  @returns undefined where the bus is not of this plan */
export function busPlaces(plan: Plan, kept: Sheets, id: string): BusPlaces | undefined {
  const sheets = notedSheets(kept, plan.benchNotes);
  const board = boardOf(plan, sheets);
  const buses = findBuses(plan, sheets);
  const bus = buses.find((one) => one.id === id);
  if (!board || !bus) return undefined;
  const own = plan.softwareBuses.find((one) => one === bus.controller);
  const search: Search = {
    plan,
    sheets,
    board,
    buses,
    bus,
    items: lineTerminals(plan, sheets, bus.members, bus.kind),
    leaves: own === undefined ? [] : [{ kind: 'software-bus', bus: own, on: false }],
  };
  const { found, blocked } = freePlaces(search);
  return {
    now: speedOf(plan, sheets, board, bus),
    places: [...joinPlaces(search), ...found, ...softwarePlaces(search)]
      .flatMap((one) => placeOf(search, one))
      .toSorted((a, b) => Number(a.software) - Number(b.software) || a.added.length - b.added.length || a.moved - b.moved),
    blocked,
  };
}
