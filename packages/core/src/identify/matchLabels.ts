import { atOrThrow } from '../collections/orThrow';
import type { PartSheet, PartTerminal } from '../sheets/partSheet';
import { blurred, plainLabel, type RowContext } from './labelForms';

export type MatchBy = 'label' | 'synonym' | 'misread' | 'trade';

export interface LabelMatch {
  readonly label: string;
  readonly terminal: PartTerminal;
  readonly by: MatchBy;
}

export interface RowMatch {
  readonly matches: readonly LabelMatch[];
  /** Printed labels that the part has no terminal for. */
  readonly strange: readonly string[];
  /** Terminals of the part that no printed label names. */
  readonly unseen: readonly PartTerminal[];
  /** How well the printed order matches the sheet in either direction, 0 to 1. */
  readonly order: number;
  readonly reversed: boolean;
}

/** How sure a match of each kind is. */
export const MATCH_WORTH: { readonly [B in MatchBy]: number } = { label: 1, synonym: 0.9, trade: 0.7, misread: 0.65 };

/** Names that makers print for a role whatever the part, where a sheet does not list them. SPI clock and data are
 *  also printed SCL and SDA, but only on rows that have a select or a data/command line. */
export const TRADE_NAMES: { readonly [role: string]: readonly string[] } = {
  ground: ['GND', 'G', '-', 'VSS', 'GROUND', 'COM'],
  'supply.vcc': ['VCC', 'VIN', 'VDD', '3V3', '3.3V', '5V', '+', 'V', 'V+', 'VSUP', '+5V', '3V', 'PWR'],
  'i2c.scl': ['SCL', 'SCK', 'C', 'CL', 'SCLK', 'CLK'],
  'i2c.sda': ['SDA', 'D', 'DA', 'SDI'],
  'spi.sck': ['SCK', 'CLK', 'SCLK', 'SCL', 'CK'],
  'spi.mosi': ['MOSI', 'SDI', 'DIN', 'SI', 'COPI', 'DI', 'SDA', 'MO'],
  'spi.miso': ['MISO', 'SDO', 'DOUT', 'SO', 'CIPO', 'DO', 'MI'],
  'spi.cs': ['CS', 'SS', 'NSS', 'CSN', 'CE', 'SCS'],
  'uart.tx': ['RX', 'RXD'],
  'uart.rx': ['TX', 'TXD'],
  'adc.in': ['OUT', 'AO', 'AOUT', 'S', 'A'],
};

export const TRADE_ROLES: readonly string[] = Object.keys(TRADE_NAMES);

const spiOnly = (role: string, label: string): boolean => role.startsWith('spi.') && (label === 'SCL' || label === 'SDA');

interface TerminalForms {
  readonly terminal: PartTerminal;
  readonly own: string;
  readonly also: ReadonlySet<string>;
  /** Its label and other names with easily misread characters unified. */
  readonly blurred: ReadonlySet<string>;
  readonly trade: ReadonlySet<string>;
}

const TRADE_FORMS = new Map(Object.entries(TRADE_NAMES).map(([role, names]) => [role, new Set(names.map(plainLabel))]));
const NO_NAMES: ReadonlySet<string> = new Set();

/** Forms of the terminals of each part, made once: a search compares every label with every terminal of every part. */
const partForms = new WeakMap<PartSheet, readonly TerminalForms[]>();

function terminalForms(part: PartSheet): readonly TerminalForms[] {
  let forms = partForms.get(part);
  if (!forms) {
    forms = part.terminals.list.map((terminal) => ({
      terminal,
      own: plainLabel(terminal.label),
      also: new Set((terminal.also ?? []).map(plainLabel)),
      blurred: new Set([terminal.label, ...(terminal.also ?? [])].map(blurred)),
      trade: TRADE_FORMS.get(terminal.role) ?? NO_NAMES,
    }));
    partForms.set(part, forms);
  }
  return forms;
}

/** The positions of each form of a label in a row. */
interface RowForms {
  readonly plain: ReadonlyMap<string, readonly number[]>;
  /** Of labels long enough to be recognised when misread. */
  readonly blurred: ReadonlyMap<string, readonly number[]>;
}

/** Memoised: the same row is compared with every part. */
const rowForms = new WeakMap<readonly string[], RowForms>();

function labelForms(labels: readonly string[]): RowForms {
  let forms = rowForms.get(labels);
  if (!forms) {
    const [plain, misread] = [new Map<string, number[]>(), new Map<string, number[]>()];
    const put = (map: Map<string, number[]>, form: string, at: number) => {
      const there = map.get(form);
      if (there) there.push(at);
      else map.set(form, [at]);
    };
    for (const [at, label] of labels.entries()) {
      const form = plainLabel(label);
      put(plain, form, at);
      if (form.length >= 2) put(misread, blurred(label), at);
    }
    rowForms.set(labels, (forms = { plain, blurred: misread }));
  }
  return forms;
}

interface Pair extends LabelMatch {
  readonly at: number;
}

/** So many of some places in a row that lie nearest to one, in their order; of two that lie as near the first. */
function nearest(places: readonly number[], to: number, count: number): readonly number[] {
  if (places.length <= count) return places;
  let from = 0;
  // The window moves on as long as what it gains lies nearer than what it loses.
  while (from + count < places.length && Math.abs(atOrThrow(places, from + count) - to) < Math.abs(atOrThrow(places, from) - to)) from += 1;
  return places.slice(from, from + count);
}

/** Every label with every terminal that it may name, by the surest of the ways in which it does. */
function pairsOf(labels: readonly string[], part: PartSheet, context: RowContext): Pair[] {
  const row = labelForms(labels);
  const pairs: Pair[] = [];
  for (const { terminal, own, also, blurred: misread, trade } of terminalForms(part)) {
    const named = new Set<number>();
    const take = (places: readonly number[] | undefined, by: MatchBy) => {
      // Identical labels are interchangeable: at most as many match as the part has terminals, nearest first.
      for (const at of nearest(places ?? [], terminal.number - 1, part.terminals.list.length)) {
        if (named.has(at)) continue;
        named.add(at);
        pairs.push({ at, label: atOrThrow(labels, at), terminal, by });
      }
    };
    if (own !== '') take(row.plain.get(own), 'label');
    for (const name of also) take(row.plain.get(name), 'synonym');
    for (const name of trade) if (context !== 'i2c' || !spiOnly(terminal.role, name)) take(row.plain.get(name), 'trade');
    for (const name of misread) take(row.blurred.get(name), 'misread');
  }
  return pairs;
}

/** Length of the longest run of rising numbers, not needing to be neighbours. */
function longestRise(numbers: readonly number[]): number {
  const ends: number[] = [];
  for (const number of numbers) {
    const at = ends.findIndex((end) => end >= number);
    if (at < 0) ends.push(number);
    else ends[at] = number;
  }
  return ends.length;
}

/** A row of printed labels against a part's terminals: each label and each terminal is used once, the surest first. */
export function matchRow(labels: readonly string[], part: PartSheet, context: RowContext): RowMatch {
  const { list } = part.terminals;
  const pairs = pairsOf(labels, part, context);
  pairs.sort(
    (a, b) =>
      MATCH_WORTH[b.by] - MATCH_WORTH[a.by] ||
      Math.abs(a.at + 1 - a.terminal.number) - Math.abs(b.at + 1 - b.terminal.number) ||
      a.at - b.at ||
      a.terminal.number - b.terminal.number,
  );
  const used = new Map<number, Pair>();
  const taken = new Set<string>();
  for (const pair of pairs) {
    if (used.has(pair.at) || taken.has(pair.terminal.id)) continue;
    used.set(pair.at, pair);
    taken.add(pair.terminal.id);
  }
  const matches = [...used.values()].sort((a, b) => a.at - b.at);
  const numbers = matches.map((m) => m.terminal.number);
  const forward = longestRise(numbers);
  const backward = longestRise(numbers.toReversed());
  return {
    matches,
    strange: labels.filter((_, at) => !used.has(at)),
    unseen: list.filter((terminal) => !taken.has(terminal.id)),
    order: numbers.length > 1 ? (Math.max(forward, backward) - 1) / (numbers.length - 1) : 0,
    reversed: backward > forward,
  };
}
