import { firstOrThrow } from '../collections/orThrow';
import { sightOf } from './firstSight';
import { chainsOf } from '../nets/chains';
import { passThroughSource } from '../nets/passThrough';
import { type PlanTerminal, terminalsOf } from '../nets/terminals';
import { type Placement, type Plan, splitKey, type TerminalKey, terminalKey } from '../plan/plan';
import type { PlacedPart } from '../plan/planContext';
import { typical } from '../quantity/range';
import { PIN_ROLES } from '../sheets/roles';
import { partSheet, type Sheets } from '../sheets/sheetIndex';
import { drives, isContacts } from './circuit';
import { drivenPart } from './driven';

/** What must be as planned for a part to do what it is tried by. */
export interface Needs {
  /** Wires to the board, each with its pin. */
  readonly lines: readonly { readonly key: TerminalKey; readonly pin: string }[];
  /** Parts that must live: the one that is tried, and those that its lines go through. */
  readonly parts: readonly string[];
}

/** A way to find out whether a part works on the bench. */
export type Trial =
  /** The search of 1-Wire: how many parts answer. */
  | { readonly ask: 'search'; readonly pin: string }
  /** A part's own answer over SPI: the first byte other than 0xFF behind some others. */
  | {
      readonly ask: 'reply';
      readonly placement: string;
      readonly line: string;
      readonly after: number;
      readonly byte: number;
      readonly needs: Needs;
    }
  /** The user operates the part; the probe monitors its line. */
  | { readonly ask: 'watch'; readonly placement: string; readonly key: TerminalKey; readonly pin: string; readonly analog: boolean }
  /** The user turns the encoder; the probe reports which phase goes low first. */
  | {
      readonly ask: 'turn';
      readonly placement: string;
      readonly keys: readonly [TerminalKey, TerminalKey];
      readonly pins: readonly [string, string];
    }
  /** The probe acts (without a line: the user's own program), and the user looks. */
  | {
      readonly ask: 'sign';
      readonly placement: string;
      readonly line: string | undefined;
      readonly undo: string | undefined;
      /** What there is to see, in the words of the sheet. */
      readonly see: string;
      /** Something moves, heats or is switched. */
      readonly moves: boolean;
      readonly needs: Needs;
    };

/** Drive time of an output and monitoring time of an input, in milliseconds. */
const DRIVE = 500;
export const WATCH = 8000;

interface Reach {
  readonly lines: Map<TerminalKey, string>;
  readonly parts: Set<string>;
}

/** Follows a line to the board: through channels, along joined lines, and back through the parts before it in a chain. */
function follow(plan: Plan, sheets: Sheets, key: TerminalKey, reach: Reach): void {
  const end = plan.wires[key]?.end;
  if (end?.to === 'pin') reach.lines.set(key, end.pin);
  if (end?.to !== 'terminal') return;
  const carrier = passThroughSource(plan, sheets, key);
  if (carrier !== undefined) {
    reach.parts.add(splitKey(carrier).placement);
    follow(plan, sheets, carrier, reach);
    return;
  }
  const other = plan.placements.find((p) => p.id === end.placement);
  if (!other || reach.parts.has(other.id)) return;
  const mine = terminalOf(plan, sheets, key);
  const next = terminalKey(end.placement, end.terminal);
  if (mine !== undefined && mine.terminal.role === terminalOf(plan, sheets, next)?.terminal.role) {
    follow(plan, sheets, next, reach);
    return;
  }
  reach.parts.add(other.id);
  for (const item of signalsOf(plan, sheets, other)) follow(plan, sheets, item.key, reach);
}

const terminalOf = (plan: Plan, sheets: Sheets, key: TerminalKey): PlanTerminal | undefined => {
  const placement = plan.placements.find((p) => p.id === splitKey(key).placement);
  return placement && terminalsOf(plan, placement, sheets).find((t) => t.key === key);
};

/** The signal terminals of a part that are wired to a pin or to another part. */
const signalsOf = (plan: Plan, sheets: Sheets, placement: Placement): readonly PlanTerminal[] =>
  terminalsOf(plan, placement, sheets).filter(
    (t) => PIN_ROLES[t.terminal.role] && (t.wire?.end.to === 'pin' || t.wire?.end.to === 'terminal'),
  );

function needsOf(plan: Plan, sheets: Sheets, placement: string, keys: readonly TerminalKey[]): Needs {
  const reach: Reach = { lines: new Map(), parts: new Set([placement]) };
  for (const key of keys) follow(plan, sheets, key, reach);
  return { lines: [...reach.lines].map(([key, pin]) => ({ key, pin })), parts: [...reach.parts] };
}

/** The pin of the only line of a role; null where there is none or several, undefined where it reaches no pin. */
function pinFor(plan: Plan, sheets: Sheets, items: readonly PlanTerminal[], role: string): string | null | undefined {
  const found = items.filter((t) => t.terminal.role === role);
  if (found.length !== 1) return null;
  return needsOf(plan, sheets, firstOrThrow(found).placement.id, [firstOrThrow(found).key]).lines[0]?.pin;
}

/** A part whose sheet describes an SPI test. */
function overSpi(plan: Plan, sheets: Sheets, { placement, part }: PlacedPart, items: readonly PlanTerminal[]): Trial | undefined {
  const { trial } = part;
  // Other lines driven by the board, such as a reset, are released by the probe; the reaction of the part is unknown.
  if (!trial || items.some((t) => t.terminal.role === 'gpio.out')) return undefined;
  const chain = chainsOf(plan, sheets).find(({ members }) => members.some((one) => one.id === placement.id));
  const [head, length] = [chain?.members[0], chain?.members.length ?? 1];
  const atHead = head && head.id !== placement.id ? signalsOf(plan, sheets, head) : items;
  const [clock, select] = ['spi.sck', 'spi.cs'].map((role) => pinFor(plan, sheets, items, role));
  const [data, back] = [pinFor(plan, sheets, atHead, 'spi.mosi'), pinFor(plan, sheets, items, 'spi.miso')];
  if (!clock || !data || select === undefined || (trial.reply && !back)) return undefined;
  const request = (sent: readonly string[]) =>
    `spi ${clock} ${data} ${back ?? '-'} ${select ?? '-'} ${sent.map((hex) => (trial.each ? hex.repeat(length) : hex)).join(' ')}`;
  const needs = needsOf(
    plan,
    sheets,
    placement.id,
    items.filter((t) => t.terminal.role.startsWith('spi.')).map((t) => t.key),
  );
  const line = request(trial.wake ? [`^${'ff'.repeat(10)}`, ...trial.send] : trial.send);
  if (trial.reply) return { ask: 'reply', placement: placement.id, line, ...trial.reply, needs };
  const undo = trial.undo && request(trial.undo);
  return { ask: 'sign', placement: placement.id, line, undo, see: trial.see ?? '', moves: false, needs };
}

/** Something that one line of the board moves or switches. */
function byDriving(plan: Plan, sheets: Sheets, { placement, part }: PlacedPart, items: readonly PlanTerminal[]): Trial | undefined {
  const [only, ...more] = items.filter((t) => t.terminal.direction === 'in' && /^(gpio|pwm)\.out$/.test(t.terminal.role));
  if (part.family !== 'output' || part.bus.kind !== 'none' || !only || more.length > 0) return undefined;
  const needs = needsOf(plan, sheets, placement.id, [only.key]);
  const pin = needs.lines[0]?.pin;
  if (pin === undefined) return undefined;
  const hertz = only.terminal.pwmHz && typical(only.terminal.pwmHz);
  // A pulse is long in proportion to its period, but for the slow ones of servos: 1.5 ms is their middle.
  const pulse = (hz: number) => `pulse ${pin} ${Math.round(1e6 / hz)} ${hz < 100 ? 1500 : Math.round(5e5 / hz)} ${DRIVE}`;
  const active = (only.terminal.idle === 'high') !== (plan.drivers[only.key]?.kind === 'pnp') ? 0 : 1;
  const line = hertz === undefined ? `drive ${pin} ${active} ${DRIVE}` : pulse(hertz);
  return { ask: 'sign', placement: placement.id, line, undo: undefined, see: sightOf(plan, sheets, placement), moves: true, needs };
}

/** Lines operated by hand, with or without an idle level. */
function byHand(plan: Plan, sheets: Sheets, { placement, part }: PlacedPart, items: readonly PlanTerminal[]): readonly Trial[] {
  const phases = part.encoder?.phases.map((id) => items.find((t) => t.terminal.id === id && t.wire?.end.to === 'pin'));
  const pinAt = (item: PlanTerminal) => needsOf(plan, sheets, placement.id, [item.key]).lines[0]?.pin;
  const [a, b] = phases ?? [];
  const [first, second] = [a && pinAt(a), b && pinAt(b)];
  const turned: Trial[] =
    a && b && first !== undefined && second !== undefined
      ? [{ ask: 'turn', placement: placement.id, keys: [a.key, b.key], pins: [first, second] }]
      : [];
  const isTold = items.some((t) => t.terminal.direction !== 'out');
  if (part.bus.kind === 'i2c' || isTold) return turned;
  return [
    ...turned,
    ...items.flatMap((item): Trial[] => {
      const pin = item.terminal.direction === 'out' ? pinAt(item) : undefined;
      if (pin === undefined || (turned.length > 0 && (item === a || item === b))) return [];
      return [{ ask: 'watch', placement: placement.id, key: item.key, pin, analog: item.terminal.role === 'adc.in' }];
    }),
  ];
}

/** Lines of a part that a test covers. */
function triedLines(trial: Trial): readonly TerminalKey[] {
  if (trial.ask === 'watch') return [trial.key];
  if (trial.ask === 'turn') return trial.keys;
  return trial.ask === 'search' ? [] : trial.needs.lines.map((line) => line.key);
}

/** Outputs whose idle level can be measured at the pin. */
const isFelt = (plan: Plan, item: PlanTerminal): boolean =>
  item.terminal.direction === 'out' &&
  ((drives(item) && item.terminal.idle !== undefined) ||
    plan.pulls[item.key] !== undefined ||
    (!item.placement.pullUpsCut && (item.part.module.pullUps ?? []).some((pull) => pull.terminals.includes(item.terminal.id))));

function trialsOf(plan: Plan, sheets: Sheets, placement: Placement, isCarrier: boolean): readonly Trial[] {
  const part = terminalsOf(plan, placement, sheets)[0]?.part;
  if (!part || placement.onBoard) return [];
  const items = signalsOf(plan, sheets, placement);
  const rest = items.filter((t) => PIN_ROLES[t.terminal.role]?.line?.kind !== 'i2c');
  const searched = rest.filter((t) => t.terminal.role === 'onewire.data');
  const lamp = drivenPart(plan, sheets, placement);
  const trials: Trial[] = searched.flatMap((item) =>
    needsOf(plan, sheets, placement.id, [item.key]).lines.map(({ pin }): Trial => ({ ask: 'search', pin })),
  );
  if (lamp)
    trials.push({
      ask: 'sign',
      placement: placement.id,
      line: lamp.words,
      undo: undefined,
      see: part.firstLight.see,
      moves: false,
      needs: { lines: lamp.lines, parts: [placement.id] },
    });
  for (const made of [overSpi(plan, sheets, { placement, part }, rest), byDriving(plan, sheets, { placement, part }, rest)])
    if (made) trials.push(made);
  trials.push(...byHand(plan, sheets, { placement, part }, rest));
  // The rest can only be tested by the user's own program. Expanders are tested through the parts connected to them.
  if (isCarrier) return trials;
  const tried = new Set(trials.flatMap(triedLines));
  const left = rest.filter((item) => {
    if (searched.includes(item) || isFelt(plan, item)) return false;
    const lines = needsOf(plan, sheets, placement.id, [item.key]).lines;
    return lines.length > 0 && !lines.every((line) => tried.has(line.key));
  });
  const answers = part.bus.kind === 'i2c' && items.length > rest.length;
  const isUntried = trials.length === 0 && !answers && part.supply !== undefined && !isContacts(part);
  if (left.length > 0 || isUntried)
    trials.push({
      ask: 'sign',
      placement: placement.id,
      line: undefined,
      undo: undefined,
      see: part.firstLight.see,
      moves: false,
      needs: needsOf(
        plan,
        sheets,
        placement.id,
        rest.map((t) => t.key),
      ),
    });
  return trials;
}

/** Every way to try the parts of a plan that are not soldered to its board, in the order of the parts. */
export function trialsFor(plan: Plan, sheets: Sheets): readonly Trial[] {
  const carriers = new Set(Object.values(plan.wires).flatMap(({ end }) => (end.to === 'terminal' ? [end.placement] : [])));
  const searches = new Set<string>();
  return plan.placements
    .flatMap((placement) => {
      const isHelper = partSheet(sheets, placement.sheet)?.sheet.family === 'helper';
      return trialsOf(plan, sheets, placement, isHelper && carriers.has(placement.id));
    })
    .filter((trial) => trial.ask !== 'search' || (!searches.has(trial.pin) && searches.add(trial.pin)));
}
