import { orThrow } from '../collections/orThrow';
import { feedOf, logicVolts, railAt, pullFeed } from '../electrics/reports/busInputs';
import { addressesOf } from '../nets/addresses';
import { segmentsOf } from '../nets/segments';
import { passThroughSource } from '../nets/passThrough';
import { planTerminals, type PlanTerminal, terminalsOf } from '../nets/terminals';
import { boardOf } from '../plan/edit';
import { type Plan, splitKey, type TerminalKey, terminalKey } from '../plan/plan';
import { typical } from '../quantity/range';
import type { PartSheet } from '../sheets/partSheet';
import { PIN_ROLES } from '../sheets/roles';
import { type IndexedBoard, partSheet, type Sheets } from '../sheets/sheetIndex';
import { scannedBuses } from './reconcile';

/** One thing that is wrong on a bench. */
export type BenchFault =
  | { readonly kind: 'swapped'; readonly a: TerminalKey; readonly b: TerminalKey }
  | { readonly kind: 'wrong-address'; readonly placement: string; readonly device: string; readonly address: number }
  /** The pull-ups of a bus at the board's pins are not there. */
  | { readonly kind: 'no-pull-up'; readonly controller: string }
  | { readonly kind: 'open-ground'; readonly placement: string }
  | { readonly kind: 'dead'; readonly placement: string }
  | { readonly kind: 'short'; readonly pins: readonly [string, string] }
  /** A wire on the position beside its own. */
  | { readonly kind: 'one-off'; readonly key: TerminalKey; readonly pin: string };

/** What brings a pin towards a voltage: a resistor, or an output of a part. */
export interface Source {
  readonly pin: string;
  readonly ohms: number;
  readonly volts: number;
}

/** Where a line of a part really ends, and what it does there. */
export interface Joint {
  readonly pin: string;
  /** It works against whatever else is at the pin. */
  readonly drives: boolean;
  /** Its part lights, moves or switches something by it. */
  readonly shows: boolean;
}

export interface BenchDevice {
  readonly address: number;
  readonly sda: string | undefined;
  readonly scl: string | undefined;
}

/** The circuit at the board's pins, as far as a probe on the board can measure it. */
export interface Circuit {
  readonly volts: number;
  /** The pull-down of the board's pins; without one a pin is emptied and left alone, and only its leakage holds it, in ohms. */
  readonly downOhms: number;
  readonly sources: readonly Source[];
  /** Parts that answer on I2C. */
  readonly devices: readonly BenchDevice[];
  readonly shorts: readonly (readonly [string, string])[];
  /** Every line that ends at a pin, itself or through a channel, by terminal. */
  readonly joints: ReadonlyMap<TerminalKey, Joint>;
  /** Lines that are not where the plan has them. */
  readonly misplaced: ReadonlySet<TerminalKey>;
  /** Whether operating the part changes its line: contacts need no supply for that. */
  live(key: TerminalKey): boolean;
  /** Parts without ground, without supply, or dead. */
  readonly out: ReadonlySet<string>;
  /** Pins with a part that answers the search of 1-Wire, once for each. */
  readonly searched: readonly string[];
}

/** How a real bench differs from the nominal one. */
export interface Spread {
  /** Factor for a resistor's value, drawn anew for each. */
  resistor(): number;
}
const NOMINAL: Spread = { resistor: () => 1 };

const OUTPUT_OHMS = 100;
/** Pull-ups and pull-downs of pins, and what a pin leaks while nothing pulls it. */
export const PULL_OHMS = 50_000;
const LEAK_OHMS = 1e6;
/** The supply that a part without ground passes into its signal lines through its own current path. */
const phantomOhms = (volts: number, milliamps: number): number => Math.min(20_000, volts / Math.max(0.2, milliamps) / 1e-3);
/** Across the protection of an input, in volts. */
const DIODE = 0.6;

interface Wiring {
  readonly plan: Plan;
  readonly sheets: Sheets;
  readonly board: IndexedBoard;
  readonly faults: readonly BenchFault[];
}

/** The terminal whose wire a terminal really has: another's, where the two were exchanged. */
function takenFor(faults: readonly BenchFault[], key: TerminalKey): TerminalKey {
  for (const fault of faults) {
    if (fault.kind !== 'swapped') continue;
    if (fault.a === key) return fault.b;
    if (fault.b === key) return fault.a;
  }
  return key;
}

/** The pin that a terminal's wire is really plugged into. */
function pinOf({ plan, board, faults }: Wiring, key: TerminalKey): string | undefined {
  const meant = takenFor(faults, key);
  const off = faults.find((f) => f.kind === 'one-off' && f.key === meant);
  if (off?.kind === 'one-off') return off.pin;
  const end = plan.wires[meant]?.end;
  return end?.to === 'pin' ? (board.pins.get(end.pin)?.sameAs ?? end.pin) : undefined;
}

/** The pin that a line of a part reaches, through a level shifter that works where one lies between. */
function reached(wiring: Wiring, key: TerminalKey): string | undefined {
  const { plan, sheets, faults } = wiring;
  const direct = pinOf(wiring, key);
  if (direct !== undefined) return direct;
  const meant = takenFor(faults, key);
  const carrier = passThroughSource(plan, sheets, meant);
  if (carrier === undefined || isOut(faults, splitKey(carrier).placement)) return undefined;
  return pinOf(wiring, carrier);
}

const isOut = (faults: readonly BenchFault[], placement: string): boolean =>
  has(faults, 'dead', placement) || has(faults, 'open-ground', placement);

const has = (faults: readonly BenchFault[], kind: 'dead' | 'open-ground', placement: string): boolean =>
  faults.some((f) => f.kind === kind && f.placement === placement);

/** The supply terminal of the side of a level shifter that an end of a channel is on; undefined for other terminals. */
function supplyOfEnd({ levelShifter }: PartSheet, terminal: string): string | undefined {
  if (levelShifter?.channels.some((c) => c.low === terminal)) return levelShifter.low;
  return levelShifter?.channels.some((c) => c.high === terminal) ? levelShifter.high : undefined;
}

/** The resistors and outputs at one terminal. */
function sourcesAt(wiring: Wiring, item: PlanTerminal, spread: Spread): readonly Source[] {
  const { plan, sheets, board, faults } = wiring;
  const { key, placement, part, terminal } = item;
  const pin = pinOf(wiring, key);
  if (pin === undefined) return [];
  const feed = typical(feedOf(plan, sheets, board, placement.id).volts);
  const found: Source[] = [];
  const bare = faults.some(
    (f) => f.kind === 'no-pull-up' && PIN_ROLES[terminal.role]?.line?.kind === 'i2c' && isOn(wiring, f.controller, placement.id),
  );
  // Where nothing else can be dead, "without supply" is what is wrong: then there is nothing that the resistors could pull to.
  const unfed = has(faults, 'dead', placement.id) && (part.levelShifter !== undefined || isContacts(part));
  const module =
    placement.pullUpsCut || bare || unfed ? [] : (part.module.pullUps ?? []).filter((pull) => pull.terminals.includes(terminal.id));
  for (const pull of module)
    found.push({ pin, ohms: pull.ohms * spread.resistor(), volts: pull.to === 'supply' ? feed : Math.min(feed, 3.3) });
  const own = plan.pulls[key];
  if (own && !bare)
    found.push({
      pin,
      ohms: own.ohms * spread.resistor(),
      volts: own.to === 'supply' ? typical(orThrow(pullFeed(plan, sheets, key), 'rail of the pull-up').volts) : 0,
    });
  const passOhms = part.levelShifter?.ohms;
  const side = supplyOfEnd(part, terminal.id);
  if (passOhms !== undefined && side !== undefined && !bare && !unfed)
    found.push({
      pin,
      ohms: passOhms * spread.resistor(),
      volts: typical(railAt(plan, sheets, board, terminalKey(placement.id, side)).volts),
    });
  if (has(faults, 'open-ground', placement.id) && part.supply)
    found.push({ pin, ohms: phantomOhms(feed, part.supply.typicalMilliamps), volts: Math.max(0, feed - DIODE) });
  // An output without a stated idle level is taken to idle low; its own pin is not tested.
  if (!isOut(faults, placement.id) && mayDrive(item)) found.push({ pin, ohms: OUTPUT_OHMS, volts: terminal.idle === 'high' ? feed : 0 });
  return found;
}

/** Contacts operated by the user, with only resistors to the supply. */
export const isContacts = (part: PartSheet): boolean =>
  part.encoder !== undefined || (part.keys !== undefined && part.keys.as !== 'ladder');

/** Whether a terminal may be an output that works against whatever else is at its pin. */
export const mayDrive = ({ terminal, part }: PlanTerminal): boolean =>
  terminal.direction === 'out' &&
  !isContacts(part) &&
  part.supply !== undefined &&
  (terminal.outputs ?? part.levels?.outputs) !== 'open-drain' &&
  PIN_ROLES[terminal.role]?.line?.kind !== 'i2c' &&
  terminal.role !== 'adc.in';

/** Whether this is known: its output type or idle level is stated. */
export const drives = (item: PlanTerminal): boolean =>
  mayDrive(item) && ((item.terminal.outputs ?? item.part.levels?.outputs) === 'push-pull' || item.terminal.idle !== undefined);

function isOn({ plan, sheets }: Wiring, controller: string, placement: string): boolean {
  const bus = scannedBuses(plan, sheets).find((one) => one.controller === controller);
  return (
    bus !== undefined &&
    segmentsOf(plan, sheets, bus).some((s) => s.members.some((m) => m.id === placement) || s.via?.placement.id === placement)
  );
}

function devicesOf(wiring: Wiring): readonly BenchDevice[] {
  const { plan, sheets, faults } = wiring;
  return scannedBuses(plan, sheets).flatMap((bus) =>
    segmentsOf(plan, sheets, bus)
      .filter((segment) => segment.via?.by !== 'channel')
      .flatMap((segment) => segment.members)
      .flatMap((member) => {
        if (isOut(faults, member.id)) return [];
        const line = (name: string) => terminalsOf(plan, member, sheets).find((t) => PIN_ROLES[t.terminal.role]?.line?.line === name);
        const [sda, scl] = [line('sda'), line('scl')];
        return addressesOf(plan, member, sheets).map(({ device, address }) => {
          const other = faults.find((f) => f.kind === 'wrong-address' && f.placement === member.id && f.device === device.id);
          return {
            address: other?.kind === 'wrong-address' ? other.address : address,
            sda: sda && reached(wiring, sda.key),
            scl: scl && reached(wiring, scl.key),
          };
        });
      }),
  );
}

function jointsOf(wiring: Wiring, items: readonly PlanTerminal[]): Circuit['joints'] {
  return new Map(
    items.flatMap((item) => {
      const pin = PIN_ROLES[item.terminal.role] && reached(wiring, item.key);
      const shows = item.part.family === 'output' || item.part.family === 'light' || item.terminal.led !== undefined;
      return pin === undefined ? [] : [[item.key, { pin, drives: mayDrive(item), shows }] as const];
    }),
  );
}

/** What a probe on the board finds at its pins when the plan is wired with these faults. Undefined where the plan's board is not known. */
export function circuitOf(plan: Plan, sheets: Sheets, faults: readonly BenchFault[] = [], spread: Spread = NOMINAL): Circuit | undefined {
  const board = boardOf(plan, sheets);
  if (!board) return undefined;
  const wiring: Wiring = { plan, sheets, board, faults };
  const volts = typical(logicVolts(board));
  const onBoard = board.sheet.pins.list.flatMap((pin) =>
    pin.sameAs
      ? []
      : (pin.duties ?? []).flatMap((duty): Source[] =>
          duty.duty === 'pull-up' && duty.ohms ? [{ pin: pin.id, ohms: duty.ohms * spread.resistor(), volts }] : [],
        ),
  );
  const added = scannedBuses(plan, sheets).flatMap((bus) => {
    const ohms = plan.busSettings[bus.controller]?.addedOhms;
    if (ohms === undefined || faults.some((f) => f.kind === 'no-pull-up' && f.controller === bus.controller)) return [];
    return Object.values(bus.pins).map((pin): Source => ({ pin, ohms: ohms * spread.resistor(), volts }));
  });
  const items = planTerminals(plan, sheets);
  return {
    volts,
    downOhms: board.sheet.electrical.pullDownOhms ? PULL_OHMS : LEAK_OHMS,
    sources: [...onBoard, ...added, ...items.flatMap((item) => sourcesAt(wiring, item, spread))],
    devices: devicesOf(wiring),
    shorts: faults.flatMap((f) => (f.kind === 'short' ? [f.pins] : [])),
    joints: jointsOf(wiring, items),
    misplaced: new Set(faults.flatMap((f) => (f.kind === 'one-off' ? [f.key] : f.kind === 'swapped' ? [f.a, f.b] : []))),
    live: (key) => {
      const { placement } = splitKey(key);
      const sheet = sheetAt(plan, sheets, placement);
      return sheet && isContacts(sheet) ? !has(faults, 'open-ground', placement) : !isOut(faults, placement);
    },
    out: new Set(plan.placements.filter((p) => isOut(faults, p.id)).map((p) => p.id)),
    searched: items.flatMap(({ key, terminal, placement }) => {
      const pin = terminal.role === 'onewire.data' && !isOut(faults, placement.id) ? reached(wiring, key) : undefined;
      return pin === undefined ? [] : [pin];
    }),
  };
}

/** What the probe does at pins while it looks: drives one, pulls one. */
export interface Hold {
  readonly pin: string;
  readonly ohms: number;
  readonly volts: number;
}

/** The voltage of a pin while the probe holds some; undefined where nothing at all is connected to it. */
export function voltsAt({ sources, shorts }: Circuit, pin: string, holds: readonly Hold[]): number | undefined {
  const group = new Set([pin]);
  for (let grown = true; grown;) {
    grown = false;
    for (const [a, b] of shorts)
      if (group.has(a) !== group.has(b)) {
        group.add(a).add(b);
        grown = true;
      }
  }
  let [siemens, amps] = [0, 0];
  for (const source of [...sources, ...holds]) {
    if (!group.has(source.pin)) continue;
    siemens += 1 / source.ohms;
    amps += source.volts / source.ohms;
  }
  return siemens === 0 ? undefined : amps / siemens;
}

/** Every terminal of a plan that ends at a pin of the board, with the pin. */
export const terminalPins = (plan: Plan): readonly { readonly key: TerminalKey; readonly placement: string; readonly pin: string }[] =>
  Object.entries(plan.wires).flatMap(([key, { end }]) =>
    end.to === 'pin' ? [{ key, placement: splitKey(key).placement, pin: end.pin }] : [],
  );

/** The sheet of a placement, where it is known. */
export const sheetAt = (plan: Plan, sheets: Sheets, placement: string) => {
  const found = plan.placements.find((p) => p.id === placement);
  return found && partSheet(sheets, found.sheet)?.sheet;
};
