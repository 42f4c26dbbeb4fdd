import { dequal } from 'dequal';
import { beforeFirst, orThrow } from '../collections/orThrow';
import { placementText, terminalText } from './names';
import { TRANSISTOR_WORDS } from '../checks/fixes/transistors';
import { boardOf, partOf } from '../plan/edit';
import {
  type BusSettings,
  type Placement,
  type Plan,
  type Readout,
  sameEnd,
  type TerminalKey,
  type Wire,
  type WireEnd,
  type Wish,
} from '../plan/plan';
import { endText } from '../outputs/endText';
import { counted, formatSi } from '../quantity/format';
import type { Sheets } from '../sheets/sheetIndex';
import { factTitle } from './fieldText';
import { breadboardText, itemText, placeText } from './views/holeText';

/** What differs in one field of two plans, as sentences. */
type ChangeText = (before: Plan, after: Plan, sheets: Sheets) => readonly string[];

type MapField = { [K in keyof Plan]: Plan[K] extends { readonly [key: string]: unknown } ? K : never }[keyof Plan];

/** The entries of a map that differ, each with what it was and what it is. */
function entries<K extends MapField>(
  field: K,
  say: (key: string, was: Plan[K][string] | undefined, is: Plan[K][string] | undefined, names: Names) => string,
): ChangeText {
  return (before, after, sheets) => {
    const names = new Names(before, after, sheets);
    const [was, is] = [before[field], after[field]] as [
      { readonly [key: string]: Plan[K][string] },
      { readonly [key: string]: Plan[K][string] },
    ];
    return [...new Set([...Object.keys(was), ...Object.keys(is)])]
      .filter((key) => !dequal(was[key], is[key]))
      .map((key) => say(key, was[key], is[key], names));
  };
}

/** Names as they are afterwards, of what has gone as they were. */
class Names {
  constructor(
    private readonly before: Plan,
    private readonly after: Plan,
    private readonly sheets: Sheets,
  ) {}

  part(id: string): string {
    return placementText(this.after.placements.some((p) => p.id === id) ? this.after : this.before, id);
  }

  terminal(key: TerminalKey): string {
    return terminalText(this.after.placements.some((p) => key.startsWith(`${p.id}:`)) ? this.after : this.before, this.sheets, key);
  }

  end(end: WireEnd | undefined): string {
    if (!end) return 'open';
    const has = end.to !== 'terminal' || this.after.placements.some((p) => p.id === end.placement);
    return endText(has ? this.after : this.before, this.sheets, end);
  }

  pin(id: string): string {
    return boardOf(this.after, this.sheets)?.pins.get(id)?.label ?? id;
  }

  fact(sheet: string, path: string): string {
    return factTitle(this.sheets.boards.has(sheet) ? 'board' : 'part', path);
  }
  sheet(id: string): string {
    return (this.sheets.parts.get(id) ?? this.sheets.boards.get(id))?.sheet.title ?? id;
  }

  bus(segment: string): string {
    const controller = (
      boardOf(this.after, this.sheets)?.controllers.get(segment) ?? boardOf(this.before, this.sheets)?.controllers.get(segment)
    )?.title;
    return controller ?? `the bus behind ${this.part(beforeFirst(segment, ':'))}`;
  }

  strapState(id: string, strap: string, state: string | undefined): string {
    const found = partOf(this.after, id, this.sheets)?.sheet.bus.straps?.find((s) => s.id === strap);
    return state ?? found?.default ?? 'as delivered';
  }
}

const placed: ChangeText = (before, after, sheets) => {
  const names = new Names(before, after, sheets);
  const was = new Map(before.placements.map((p) => [p.id, p]));
  const stays = new Set(after.placements.map((p) => p.id));
  const changes = (p: Placement): readonly string[] => {
    const old = was.get(p.id);
    if (!old) return [`${p.name} added`];
    const straps = [...new Set([...Object.keys(old.straps), ...Object.keys(p.straps)])].filter((s) => old.straps[s] !== p.straps[s]);
    return [
      ...(old.sheet.id === p.sheet.id ? [] : [`${old.name} replaced by ${sheets.parts.get(p.sheet.id)?.sheet.title ?? p.sheet.id}`]),
      ...(old.sheet.id !== p.sheet.id || old.sheet.version === p.sheet.version
        ? []
        : [`${p.name}: sheet updated to version ${p.sheet.version}`]),
      ...(old.name === p.name ? [] : [`${old.name} renamed to ${p.name}`]),
      ...(old.pullUpsCut === p.pullUpsCut ? [] : [`pull-ups of ${p.name} ${p.pullUpsCut ? 'disconnected' : 'connected'}`]),
      ...straps.map((s) => `${p.name} ${s}: ${names.strapState(p.id, s, old.straps[s])} → ${names.strapState(p.id, s, p.straps[s])}`),
    ];
  };
  const order = (plan: Plan, other: Plan) => plan.placements.map((p) => p.id).filter((id) => other.placements.some((p) => p.id === id));
  const moved = order(before, after).join(' ') === order(after, before).join(' ') ? [] : ['order of parts changed'];
  return [
    ...before.placements.filter((p) => !stays.has(p.id)).map((p) => `${p.name} removed`),
    ...after.placements.flatMap(changes),
    ...moved,
  ];
};

/** Where a wire goes, or its colour and lock where it stays. */
function wireChange(key: TerminalKey, was: Wire | undefined, is: Wire | undefined, names: Names): string {
  if (!was || !is || !sameEnd(was.end, is.end)) return `${names.terminal(key)}: ${names.end(was?.end)} → ${names.end(is?.end)}`;
  const colour = was.colour === is.colour ? [] : [`${is.colour} instead of ${was.colour}`];
  const lock = was.locked === is.locked ? [] : [is.locked ? 'locked' : 'unlocked'];
  return `wire of ${names.terminal(key)} ${[...colour, ...lock].join(', ')}`;
}

function busChanges(segment: string, was: BusSettings = {}, is: BusSettings = {}, names: Names): string {
  const parts = [
    was.hz === is.hz ? '' : is.hz === undefined ? 'fastest common clock' : `clock ${formatSi(is.hz, 'Hz')}`,
    was.addedOhms === is.addedOhms
      ? ''
      : is.addedOhms === undefined
        ? 'added pull-ups removed'
        : `${formatSi(is.addedOhms, 'Ω')} pull-up added per line`,
    was.wireCm === is.wireCm ? '' : is.wireCm === undefined ? 'wire length estimated' : `wire length ${is.wireCm} cm`,
    was.picofarads === is.picofarads
      ? ''
      : is.picofarads === undefined
        ? 'bus capacitance estimated'
        : `bus capacitance ${formatSi(is.picofarads * 1e-12, 'F')} (measured)`,
  ];
  return `${names.bus(segment)}: ${parts.filter(Boolean).join(', ')}`;
}

function readoutChange(id: string, was: Readout = {}, is: Readout = {}, names: Names): string {
  const pictures = (is.pictures?.length ?? 0) - (was.pictures?.length ?? 0);
  const parts = [
    was.text === is.text ? '' : is.text === undefined ? 'no text' : `shows “${is.text}”`,
    was.scale === is.scale ? '' : `text scale ${is.scale ?? 1}×`,
    was.picture === is.picture
      ? ''
      : is.picture === 'part'
        ? 'partial frame buffer'
        : is.picture === 'none'
          ? 'no frame buffer'
          : 'full frame buffer',
    was.scroll === is.scroll ? '' : is.scroll ? 'text scrolls' : 'text does not scroll',
    dequal(was.glyphs, is.glyphs) ? '' : 'custom characters changed',
    dequal(was.pictures, is.pictures)
      ? ''
      : pictures > 0
        ? `${counted(pictures, 'picture')} added`
        : pictures < 0
          ? `${counted(-pictures, 'picture')} removed`
          : 'pictures changed',
  ];
  return `${names.part(id)}: ${parts.filter(Boolean).join(', ')}`;
}

function wishWords({ pin, controller, not = [] }: Wish, names: Names): string {
  if (pin !== undefined) return names.pin(pin);
  return controller === undefined ? `pins other than ${not.map((one) => names.pin(one)).join(', ')}` : names.bus(controller);
}

/** A step of the build by its id: what is seen and found of a part, and all others by their kind. */
function stepChange(step: string, done: boolean, names: Names): string {
  const [kind, part = '', device] = step.split(':');
  if (kind === 'light') return `${names.part(part)} marked as ${done ? 'working' : 'not tested'}`;
  if (kind === 'found') return `${names.part(part)}${device === undefined ? '' : ` ${device}`} marked as ${done ? 'found' : 'not found'}`;
  return `build step ${done ? 'marked done' : 'marked not done'} (${step})`;
}

/** The code of the check in the id of a finding. */
const findingCode = (id: string): string => beforeFirst(id, '/');

const butWires = (steps: Plan['steps']): Plan['steps'] =>
  Object.fromEntries(Object.entries(steps).filter(([id]) => !id.startsWith('wire:')));
const STEP_CHANGES = entries('steps', (step, _, done, names) => stepChange(step, done !== undefined, names));

/** By the field of a plan: a new field without a text does not compile. */
const CHANGE_TEXT: { readonly [K in keyof Plan]: ChangeText | null } = {
  format: null,
  formatVersion: null,
  id: null,
  name: (before, after) => (before.name === after.name ? [] : [`plan renamed to ${after.name}`]),
  board: (before, after, sheets) =>
    before.board.id === after.board.id
      ? before.board.version === after.board.version
        ? []
        : [`board sheet updated to version ${after.board.version}`]
      : [`board: ${boardOf(after, sheets)?.sheet.title ?? after.board.id}`],
  placements: placed,
  wires: entries('wires', wireChange),
  ticks: entries('ticks', (key, _, is, names) => `wire of ${names.terminal(key)} ${is ? 'marked done' : 'marked not done'}`),
  // The step of a wire keeps its holes beside its tick, which says all of it.
  steps: (before, after, sheets) =>
    STEP_CHANGES({ ...before, steps: butWires(before.steps) }, { ...after, steps: butWires(after.steps) }, sheets),
  built: (before, after) =>
    dequal(before.built, after.built) ? [] : [after.built ? `marked as built on ${after.built.date}` : 'build record cleared'],
  accepted: entries('accepted', (finding, _, reason) =>
    reason === undefined ? `finding no longer accepted (${findingCode(finding)})` : `finding accepted (${findingCode(finding)}): ${reason}`,
  ),
  benchNotes: entries('benchNotes', (_, was, note, names) => {
    const { sheet, fact } = orThrow(note ?? was, 'bench note');
    return `bench note on ${names.fact(sheet, fact)} of ${names.sheet(sheet)}${note ? '' : ' removed'}`;
  }),
  wireNotes: entries(
    'wireNotes',
    (key, _, note, names) => `wire of ${names.terminal(key)} ${note ? 'confirmed on the bench' : 'no longer confirmed'}`,
  ),
  wishes: entries('wishes', (key, _, wish, names) =>
    wish ? `${names.terminal(key)}: prefers ${wishWords(wish, names)}` : `${names.terminal(key)}: no preference`,
  ),
  together: entries('together', (id, _, how, names) =>
    how ? `wires of ${names.part(id)} ${how === 'port' ? 'on one port' : 'on adjacent pins'}` : `wires of ${names.part(id)} on any pins`,
  ),
  busSettings: entries('busSettings', busChanges),
  pulls: entries('pulls', (key, was, pull, names) =>
    pull
      ? `${formatSi(pull.ohms, 'Ω')} from ${names.terminal(key)} to ${pull.to === 'supply' ? 'the supply' : 'ground'}`
      : `${formatSi(orThrow(was, 'resistor').ohms, 'Ω')} at ${names.terminal(key)} removed`,
  ),
  series: entries('series', (key, was, ohms, names) =>
    ohms === undefined
      ? `${formatSi(orThrow(was, 'resistor'), 'Ω')} removed at ${names.terminal(key)}`
      : `${formatSi(ohms, 'Ω')} at ${names.terminal(key)}`,
  ),
  drivers: entries('drivers', (key, was, driver, names) =>
    driver
      ? `${TRANSISTOR_WORDS[driver.kind]} with ${formatSi(driver.ohms, 'Ω')} at ${names.terminal(key)}${driver.legs === undefined ? '' : `, legs ${[...driver.legs].join(' ')}`}`
      : `${TRANSISTOR_WORDS[orThrow(was, 'transistor').kind]} at ${names.terminal(key)} removed`,
  ),
  ladders: entries('ladders', (id, _, ladder, names) =>
    ladder
      ? `${names.part(id)}: ${[ladder.pull, ...ladder.row].map((ohms) => formatSi(ohms, 'Ω')).join(', ')} resistor ladder`
      : `${names.part(id)}: resistor ladder unknown`,
  ),
  loads: entries('loads', (id, _, load, names) => {
    const { units = 1, share = 1 } = load ?? {};
    return `${names.part(id)}: quantity ${units}, ${Math.round(share * 100)} % on at once`;
  }),
  readouts: entries('readouts', readoutChange),
  capacitors: entries('capacitors', (id, _, there, names) => `decoupling capacitors of ${names.part(id)} ${there ? 'added' : 'removed'}`),
  references: entries('references', (id, was, name, names) =>
    name === undefined ? `${was} renumbered` : `${name} is the name of a component at ${names.part(beforeFirst(id, ':'))}`,
  ),
  softwareBuses: (before, after, sheets) => {
    const names = new Names(before, after, sheets);
    return [
      ...after.softwareBuses.filter((id) => !before.softwareBuses.includes(id)).map((id) => `${names.bus(id)} added`),
      ...before.softwareBuses.filter((id) => !after.softwareBuses.includes(id)).map((id) => `${names.bus(id)} removed`),
    ];
  },
  softwarePwm: entries('softwarePwm', (key, _, on, names) => `PWM of ${names.terminal(key)} by ${on ? 'the program' : 'a timer'}`),
  breadboard: (before, after) =>
    dequal(before.breadboard, after.breadboard)
      ? []
      : [after.breadboard ? `breadboard: ${breadboardText(after.breadboard)}` : 'breadboard removed'],
  layout: entries('layout', (id, _, place, names) =>
    place
      ? `${names.part(id)}: ${place.side} of the board in the wiring picture${place.turned ? ', turned' : ''}`
      : `${names.part(id)}: arranged automatically in the wiring picture`,
  ),
  places: (before, after, sheets) =>
    entries('places', (item, _, place) => {
      const plan = after.places[item] ? after : before;
      const name = itemText(plan, sheets, item);
      if (!place) return `${name}: no place on the breadboard`;
      return place.side === 'off' ? `${name}: off the breadboard` : `${name}: ${placeText(after.breadboard, place)}`;
    })(before, after, sheets),
  valuesOnHand: (before, after) =>
    dequal(before.valuesOnHand, after.valuesOnHand)
      ? []
      : [`values on hand: ${after.valuesOnHand.own ? counted(after.valuesOnHand.own.length, 'value') : after.valuesOnHand.series}`],
  rates: entries('rates', (id, _, rate, names) =>
    rate === undefined ? `${names.part(id)}: default update rate` : `${names.part(id)}: update rate ${rate} Hz`,
  ),
  radio: (before, after) => (before.radio === after.radio ? [] : [after.radio ? 'radio in use' : 'radio not in use']),
};

/** Everything that differs between two plans, in words: parts first, then wires, then settings. What an edit did is what differs after it, so
 *  undo, history, previews of fixes, versions and the command line read this, and every kind of edit has its words.
 *  @returns empty where nothing differs
 *  @example planChanges(before, after, sheets) // ['Status LED anode: GP22 → GP2'] */
export const planChanges = (before: Plan, after: Plan, sheets: Sheets): readonly string[] =>
  Object.values(CHANGE_TEXT).flatMap((text) => text?.(before, after, sheets) ?? []);

/** A change of a plan in one line: its first difference, and how many there are besides.
 *  @example changeText(before, after, sheets) // 'Status LED anode: GP22 → GP2' */
export function changeText(before: Plan, after: Plan, sheets: Sheets): string {
  const [first = 'no change', ...others] = planChanges(before, after, sheets);
  return others.length === 0 ? first : `${first}, and ${counted(others.length, 'other change')}`;
}
