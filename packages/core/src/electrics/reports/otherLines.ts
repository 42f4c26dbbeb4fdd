import { firstOrThrow } from '../../collections/orThrow';
import type { PlanContext, PlanOnBoard } from '../../plan/planContext';
import { findNets, type Nets } from '../../nets/nets';
import { isPulledUp } from '../../nets/pulled';
import { type PlanTerminal, planTerminals } from '../../nets/terminals';
import type { Placement, Plan } from '../../plan/plan';
import { valuesWithin, nearestOf } from '../../quantity/series';
import { PIN_ROLES } from '../../sheets/roles';
import { type IndexedBoard, partSheet, type Sheets } from '../../sheets/sheetIndex';
import { feedOf } from './busInputs';

/** A note on lines that are neither I2C nor SPI; its text is made in the interface. */
export type LineNote =
  | { readonly note: 'protocol'; readonly text: string }
  /** "board sends to NAME RX": what crosses on a serial line. */
  | { readonly note: 'crossing'; readonly sends: string | undefined; readonly hears: string | undefined }
  /** The pins also are the board's console or its USB bridge. */
  | { readonly note: 'console'; readonly text: string }
  /** A 1-Wire line: the resistor it has, the one that suits its length, and whether parts take their supply from it. */
  | { readonly note: 'one-wire'; readonly pulled: boolean; readonly ohms: number | undefined; readonly parasitic: readonly string[] }
  | { readonly note: 'encoder'; readonly interrupts: number; readonly bounceMilliseconds: number }
  | { readonly note: 'matrix'; readonly keys: number; readonly diodes: boolean }
  | { readonly note: 'shared-clock'; readonly with: readonly string[] }
  | { readonly note: 'pull'; readonly terminal: string; readonly ohms: number; readonly to: 'supply' | 'ground' }
  | { readonly note: 'through'; readonly terminals: readonly string[]; readonly text: string }
  | { readonly note: 'terminal'; readonly terminals: readonly string[]; readonly text: string };

export const LINE_KINDS = ['uart', 'one-wire', 'own-protocol', 'encoder', 'key-matrix'] as const;
export type LineKind = (typeof LINE_KINDS)[number];

/** Lines of a part, or of several on one 1-Wire line, with their notes. */
export interface OtherLines {
  readonly kind: LineKind;
  readonly members: readonly Placement[];
  readonly lines: readonly { readonly label: string; readonly key: string; readonly pin: string | undefined }[];
  /** Highest clock that the sheet gives, in hertz. */
  readonly maxHz: number | undefined;
  readonly notes: readonly LineNote[];
}

/** The pull-up that suits a 1-Wire line: stronger the longer it is and the lower its supply, in ohms. Application note 148 keeps to
 *  4.7 kΩ up to some metres and to about half of it beyond. */
export function oneWirePullUp(volts: number, cm: number): number {
  if (cm > 1000) return 2200;
  return volts < 3 ? 3300 : 4700;
}

const signals = (items: readonly PlanTerminal[]): readonly PlanTerminal[] =>
  items.filter((t) => PIN_ROLES[t.terminal.role] && t.terminal.role !== 'strap' && (t.wire || t.terminal.need === 'needed'));

const pinOf = (nets: Nets, item: PlanTerminal): string | undefined => nets.byTerminal.get(item.key)?.pins[0];

function linesOf(nets: Nets, items: readonly PlanTerminal[]): OtherLines['lines'] {
  return items.map((item) => ({ label: item.terminal.label, key: item.key, pin: pinOf(nets, item) }));
}

function usualNotes(plan: Plan, items: readonly PlanTerminal[]): readonly LineNote[] {
  // Identical notes of several terminals are merged.
  const alike = (note: 'through' | 'terminal', textOf: (item: PlanTerminal) => string | undefined): readonly LineNote[] => {
    const texts = [...new Set(items.flatMap((item) => textOf(item) ?? []))];
    return texts.map((text) => ({
      note,
      terminals: [...new Set(items.filter((item) => textOf(item) === text).map((item) => item.terminal.label))],
      text,
    }));
  };
  return [
    ...items.flatMap((item): LineNote[] => {
      const pull = plan.pulls[item.key];
      return pull ? [{ note: 'pull', terminal: item.terminal.label, ...pull }] : [];
    }),
    ...alike('through', (item) => item.terminal.through),
    ...alike('terminal', (item) => item.terminal.note),
  ];
}

/** Parts whose clock is joined with this part's, this part's joined with theirs among them. */
function sharers(items: readonly PlanTerminal[], all: readonly PlanTerminal[]): readonly string[] {
  return items.flatMap((item) => {
    if (item.terminal.line !== 'clock') return [];
    const head = item.joins ?? item.key;
    return all.filter((t) => t.placement.id !== item.placement.id && (t.key === head || t.joins === head)).map((t) => t.placement.id);
  });
}

function consoleNote(board: IndexedBoard, nets: Nets, items: readonly PlanTerminal[]): readonly LineNote[] {
  const texts = items.flatMap((item) =>
    (board.pins.get(pinOf(nets, item) ?? '')?.duties ?? []).filter((d) => d.duty === 'console' || d.duty === 'usb').map((d) => d.note),
  );
  return texts.length > 0 ? [{ note: 'console', text: [...new Set(texts)].join('; ') }] : [];
}

function serial({ plan, board }: PlanOnBoard, nets: Nets, placement: Placement, items: readonly PlanTerminal[]): OtherLines {
  const at = (role: string) => items.find((t) => t.terminal.role === role)?.terminal.label;
  return {
    kind: 'uart',
    members: [placement],
    lines: linesOf(nets, items),
    maxHz: undefined,
    notes: [
      { note: 'crossing', sends: at('uart.tx'), hears: at('uart.rx') },
      ...consoleNote(board, nets, items),
      ...usualNotes(plan, items),
    ],
  };
}

/** Wire that a 1-Wire line is taken to have, in centimetres for each part. */
const ONE_WIRE_CM = 100;

function oneWire({ plan, sheets, board }: PlanContext, nets: Nets, items: readonly PlanTerminal[]): OtherLines {
  const members = items.map((t) => t.placement);
  const volts = feedOf(plan, sheets, board, firstOrThrow(members).id).volts.min;
  const wanted = oneWirePullUp(volts, members.length * ONE_WIRE_CM);
  const parasitic = members.filter((member) => {
    const supply = planTerminals(plan, sheets).find((t) => t.placement.id === member.id && t.terminal.role === 'supply.vcc');
    return supply?.wire?.end.to === 'ground';
  });
  return {
    kind: 'one-wire',
    members,
    lines: linesOf(nets, items),
    maxHz: undefined,
    notes: [
      {
        note: 'one-wire',
        pulled: items.some((item) => isPulledUp(plan, item)),
        ohms: nearestOf(valuesWithin(plan.valuesOnHand, 1000, 10_000), wanted),
        parasitic: parasitic.map((p) => p.id),
      },
      ...usualNotes(plan, items),
    ],
  };
}

/** What kind of lines of its own a part has, apart from buses. */
function kindOf(items: readonly PlanTerminal[]): LineKind | undefined {
  const { part } = firstOrThrow(items);
  if (part.encoder) return 'encoder';
  if (part.keys?.as === 'matrix') return 'key-matrix';
  if (items.some((t) => PIN_ROLES[t.terminal.role]?.line?.kind === 'uart')) return 'uart';
  return part.bus.kind === 'private' && !part.levelShifter ? 'own-protocol' : undefined;
}

function ofItsOwn({ plan, sheets, board }: PlanContext, nets: Nets, placement: Placement): readonly OtherLines[] {
  const all = planTerminals(plan, sheets);
  const items = signals(all.filter((t) => t.placement.id === placement.id)).filter((t) => t.terminal.role !== 'onewire.data');
  const kind = items.length > 0 ? kindOf(items) : undefined;
  if (!kind) return [];
  if (kind === 'uart')
    return [
      serial(
        { plan, board },
        nets,
        placement,
        items.filter((t) => t.terminal.role.startsWith('uart.')),
      ),
    ];
  const { part } = firstOrThrow(items);
  const shared = sharers(items, all);
  const interrupts = (part.encoder?.phases ?? []).filter((phase) => {
    const item = items.find((t) => t.terminal.id === phase);
    return item && (board.pins.get(pinOf(nets, item) ?? '')?.interrupts?.length ?? 0) > 0;
  });
  return [
    {
      kind,
      members: [placement],
      lines: linesOf(nets, items),
      maxHz: part.bus.maxWriteHz,
      notes: [
        ...(part.bus.protocol ? [{ note: 'protocol' as const, text: part.bus.protocol }] : []),
        ...(part.encoder
          ? [{ note: 'encoder' as const, interrupts: interrupts.length, bounceMilliseconds: part.encoder.bounceMilliseconds }]
          : []),
        ...(part.keys ? [{ note: 'matrix' as const, keys: part.keys.count, diodes: part.keys.diodes === true }] : []),
        ...(shared.length > 0 ? [{ note: 'shared-clock' as const, with: shared }] : []),
        ...usualNotes(plan, items),
      ],
    },
  ];
}

/** Lines that are no I2C and no SPI, in the order of the plan: serial, 1-Wire, protocols of a part's own, encoders, key matrices. */
export function otherLines(plan: Plan, sheets: Sheets, board: IndexedBoard): readonly OtherLines[] {
  const nets = findNets(plan, sheets);
  const wires = nets.list.map((net) => net.terminals.filter((t) => t.terminal.role === 'onewire.data')).filter((items) => items.length > 0);
  return [
    ...plan.placements.filter((p) => partSheet(sheets, p.sheet)).flatMap((p) => ofItsOwn({ plan, sheets, board }, nets, p)),
    ...wires.map((items) => oneWire({ plan, sheets, board }, nets, items)),
  ];
}
