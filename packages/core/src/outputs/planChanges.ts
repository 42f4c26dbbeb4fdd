import { sayPlacement, sayTerminal } from '../checks/say';
import { TRANSISTOR_WORDS } from '../checks/transistors';
import { boardOf, partOf } from '../plan/edit';
import type { BusSettings, Placement, Plan, Readout, TerminalKey, Wire, Wish } from '../plan/plan';
import { counted, formatSi } from '../quantity/format';
import type { Sheets } from '../sheets/sheetIndex';

/** What differs in one field of two plans, in words. */
type Teller = (before: Plan, after: Plan, sheets: Sheets) => readonly string[];

type MapField = { [K in keyof Plan]: Plan[K] extends { readonly [key: string]: unknown } ? K : never }[keyof Plan];

/** The entries of a map that differ, each with what it was and what it is. */
function entries<K extends MapField>(
  field: K,
  say: (key: string, was: Plan[K][string] | undefined, is: Plan[K][string] | undefined, names: Names) => string,
): Teller {
  return (before, after, sheets) => {
    const names = new Names(before, after, sheets);
    const [was, is] = [before[field], after[field]] as [
      { readonly [key: string]: Plan[K][string] },
      { readonly [key: string]: Plan[K][string] },
    ];
    return [...new Set([...Object.keys(was), ...Object.keys(is)])]
      .filter((key) => JSON.stringify(was[key]) !== JSON.stringify(is[key]))
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
    return sayPlacement(this.after.placements.some((p) => p.id === id) ? this.after : this.before, id);
  }

  terminal(key: TerminalKey): string {
    return sayTerminal(this.after.placements.some((p) => key.startsWith(`${p.id}:`)) ? this.after : this.before, this.sheets, key);
  }

  pin(id: string): string {
    return boardOf(this.after, this.sheets)?.pins.get(id)?.label ?? id;
  }

  sheet(id: string): string {
    return (this.sheets.parts.get(id) ?? this.sheets.boards.get(id))?.sheet.title ?? id;
  }

  bus(segment: string): string {
    const controller = boardOf(this.after, this.sheets)?.controllers.get(segment)?.title;
    return controller ?? `the bus behind ${this.part(segment.split(':')[0]!)}`;
  }

  strapState(id: string, strap: string, state: string | undefined): string {
    const found = partOf(this.after, id, this.sheets)?.sheet.bus.straps?.find((s) => s.id === strap);
    return state ?? found?.default ?? 'as delivered';
  }
}

const placed: Teller = (before, after, sheets) => {
  const names = new Names(before, after, sheets);
  const was = new Map(before.placements.map((p) => [p.id, p]));
  const stays = new Set(after.placements.map((p) => p.id));
  const changes = (p: Placement): readonly string[] => {
    const old = was.get(p.id);
    if (!old) return [`${p.name} is added`];
    const straps = [...new Set([...Object.keys(old.straps), ...Object.keys(p.straps)])].filter((s) => old.straps[s] !== p.straps[s]);
    return [
      ...(old.sheet.id === p.sheet.id ? [] : [`${old.name} becomes ${sheets.parts.get(p.sheet.id)?.sheet.title ?? p.sheet.id}`]),
      ...(old.sheet.id !== p.sheet.id || old.sheet.version === p.sheet.version
        ? []
        : [`${p.name} takes version ${p.sheet.version} of its sheet`]),
      ...(old.name === p.name ? [] : [`${old.name} is called ${p.name}`]),
      ...(old.pullUpsCut === p.pullUpsCut ? [] : [`pull-ups of ${p.name} ${p.pullUpsCut ? 'cut' : 'put back'}`]),
      ...straps.map((s) => `${p.name} ${s}: ${names.strapState(p.id, s, old.straps[s])} → ${names.strapState(p.id, s, p.straps[s])}`),
    ];
  };
  const order = (plan: Plan, other: Plan) => plan.placements.map((p) => p.id).filter((id) => other.placements.some((p) => p.id === id));
  const moved = order(before, after).join(' ') === order(after, before).join(' ') ? [] : ['parts in another order'];
  return [
    ...before.placements.filter((p) => !stays.has(p.id)).map((p) => `${p.name} is taken out`),
    ...after.placements.flatMap(changes),
    ...moved,
  ];
};

/** Colours and locks; where wires go is told apart, with their ends. */
function wireLook(key: TerminalKey, was: Wire | undefined, is: Wire | undefined, names: Names): string {
  if (!was || !is) return '';
  const colour = was.colour === is.colour ? [] : [`${is.colour} instead of ${was.colour}`];
  const lock = was.locked === is.locked ? [] : [is.locked ? 'locked' : 'no longer locked'];
  const both = [...colour, ...lock];
  return both.length === 0 ? '' : `wire of ${names.terminal(key)} ${both.join(', ')}`;
}

function busChanges(segment: string, was: BusSettings = {}, is: BusSettings = {}, names: Names): string {
  const parts = [
    was.hz === is.hz ? '' : is.hz === undefined ? 'clock as fast as all allow' : `clock ${formatSi(is.hz, 'Hz')}`,
    was.addedOhms === is.addedOhms
      ? ''
      : is.addedOhms === undefined
        ? 'added resistors taken away'
        : `${formatSi(is.addedOhms, 'Ω')} added on each line`,
    was.wireCm === is.wireCm ? '' : is.wireCm === undefined ? 'wire as estimated' : `${is.wireCm} cm of wire`,
    was.picofarads === is.picofarads
      ? ''
      : is.picofarads === undefined
        ? 'capacitance as estimated'
        : `${formatSi(is.picofarads * 1e-12, 'F')} measured`,
  ];
  return `${names.bus(segment)}: ${parts.filter(Boolean).join(', ')}`;
}

function readoutChange(id: string, was: Readout = {}, is: Readout = {}, names: Names): string {
  const pictures = (is.pictures?.length ?? 0) - (was.pictures?.length ?? 0);
  const parts = [
    was.text === is.text ? '' : is.text === undefined ? 'no text' : `shows “${is.text}”`,
    was.scale === is.scale ? '' : `letters ${is.scale ?? 1} times the smallest`,
    was.picture === is.picture
      ? ''
      : is.picture === 'part'
        ? 'its picture in parts'
        : is.picture === 'none'
          ? 'no picture kept'
          : 'its picture kept as usual',
    was.scroll === is.scroll ? '' : is.scroll ? 'its text runs through' : 'its text stands still',
    JSON.stringify(was.glyphs) === JSON.stringify(is.glyphs) ? '' : 'other characters of its own',
    JSON.stringify(was.pictures) === JSON.stringify(is.pictures)
      ? ''
      : pictures > 0
        ? `${counted(pictures, 'picture')} more`
        : pictures < 0
          ? `${counted(-pictures, 'picture')} fewer`
          : 'other pictures',
  ];
  return `${names.part(id)}: ${parts.filter(Boolean).join(', ')}`;
}

function wishWords({ pin, controller, not = [] }: Wish, names: Names): string {
  if (pin !== undefined) return `at ${names.pin(pin)}`;
  return controller === undefined ? `not at ${not.map((one) => names.pin(one)).join(', ')}` : `on ${names.bus(controller)}`;
}

/** The code of the check in the id of a finding. */
const findingCode = (id: string): string => id.split('/', 1)[0]!;

/** By the field of a plan: a field that is new has no teller, and this does not compile. Nothing is told of `wires` but how they look. */
const TELLERS: { readonly [K in keyof Plan]: Teller | null } = {
  format: null,
  formatVersion: null,
  id: null,
  name: (before, after) => (before.name === after.name ? [] : [`the plan is called ${after.name}`]),
  board: (before, after, sheets) =>
    before.board.id === after.board.id
      ? before.board.version === after.board.version
        ? []
        : [`version ${after.board.version} of the board’s sheet`]
      : [`board: ${boardOf(after, sheets)?.sheet.title ?? after.board.id}`],
  placements: placed,
  wires: (before, after, sheets) => entries('wires', wireLook)(before, after, sheets).filter(Boolean),
  ticks: entries('ticks', (key, _, is, names) => `wire of ${names.terminal(key)} ${is ? 'ticked' : 'no longer ticked'}`),
  steps: entries('steps', (step, _, is) => `a step of the build ${is === undefined ? 'no longer done' : 'done'} (${step})`),
  built: (before, after) =>
    JSON.stringify(before.built) === JSON.stringify(after.built)
      ? []
      : [after.built ? `kept as built on ${after.built.date}` : 'no longer kept as built'],
  accepted: entries('accepted', (finding, _, reason) =>
    reason === undefined
      ? `a finding no longer accepted (${findingCode(finding)})`
      : `a finding accepted (${findingCode(finding)}): ${reason}`,
  ),
  benchNotes: entries('benchNotes', (_, was, note, names) => {
    const { sheet, fact } = (note ?? was)!;
    return `note on ${fact.replaceAll('/', ' ')} of ${names.sheet(sheet)}${note ? '' : ' taken away'}`;
  }),
  wireNotes: entries(
    'wireNotes',
    (key, _, note, names) => `wire of ${names.terminal(key)} ${note ? 'found in its place' : 'no longer noted'}`,
  ),
  wishes: entries('wishes', (key, _, wish, names) =>
    wish ? `${names.terminal(key)} preferred ${wishWords(wish, names)}` : `no preference for ${names.terminal(key)}`,
  ),
  together: entries('together', (id, _, how, names) =>
    how ? `wires of ${names.part(id)} ${how === 'port' ? 'on one port' : 'side by side'}` : `wires of ${names.part(id)} anywhere`,
  ),
  busSettings: entries('busSettings', busChanges),
  pulls: entries('pulls', (key, was, pull, names) =>
    pull
      ? `${formatSi(pull.ohms, 'Ω')} from ${names.terminal(key)} to ${pull.to === 'supply' ? 'the supply' : 'ground'}`
      : `${formatSi(was!.ohms, 'Ω')} at ${names.terminal(key)} taken out`,
  ),
  series: entries('series', (key, was, ohms, names) =>
    ohms === undefined ? `${formatSi(was!, 'Ω')} removed at ${names.terminal(key)}` : `${formatSi(ohms, 'Ω')} at ${names.terminal(key)}`,
  ),
  drivers: entries('drivers', (key, was, driver, names) =>
    driver
      ? `${TRANSISTOR_WORDS[driver.kind]} with ${formatSi(driver.ohms, 'Ω')} at ${names.terminal(key)}`
      : `${TRANSISTOR_WORDS[was!.kind]} at ${names.terminal(key)} taken out`,
  ),
  ladders: entries('ladders', (id, _, ladder, names) =>
    ladder
      ? `${names.part(id)}: ${[ladder.pull, ...ladder.row].map((ohms) => formatSi(ohms, 'Ω')).join(', ')} as its ladder`
      : `resistors of ${names.part(id)} not known`,
  ),
  loads: entries('loads', (id, _, load, names) => {
    const { units = 1, share = 1 } = load ?? {};
    return `${names.part(id)} counted ${units === 1 ? 'once' : `${units} times`}, ${Math.round(share * 100)} % on at once`;
  }),
  readouts: entries('readouts', readoutChange),
  capacitors: entries('capacitors', (id, _, there, names) => `capacitors beside ${names.part(id)}${there ? '' : ' taken out'}`),
  drawer: (before, after) =>
    JSON.stringify(before.drawer) === JSON.stringify(after.drawer)
      ? []
      : [`resistors on hand: ${after.drawer.own ? counted(after.drawer.own.length, 'value') : after.drawer.series}`],
  rates: entries('rates', (id, _, rate, names) =>
    rate === undefined ? `${names.part(id)} asked as often as usual` : `${names.part(id)} asked ${rate} times a second`,
  ),
  radio: (before, after) => (before.radio === after.radio ? [] : [after.radio ? 'the radio is used' : 'the radio is off']),
};

/** Everything that differs between two plans but where their wires go, in words, field by field.
 *  @returns empty where nothing else differs */
export const planChanges = (before: Plan, after: Plan, sheets: Sheets): readonly string[] =>
  Object.values(TELLERS).flatMap((tell) => tell?.(before, after, sheets) ?? []);
