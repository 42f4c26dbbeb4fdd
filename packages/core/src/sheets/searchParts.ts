import { beforeFirst } from '../collections/orThrow';
import type { Family, PartSheet } from './partSheet';
import { inOtherWords } from './searchSynonyms';

const plain = (text: string): string => text.toLowerCase().replace(/×/g, 'x').replace(/[″"]/g, '').replace(/,/g, '.');

/** Words and numbers of a text: `1.3" OLED` gives `1.3` and `oled`. */
const wordsOf = (text: string): readonly string[] => plain(text).match(/[\p{L}\d]+(?:[.-][\p{L}\d]+)*\+?/gu) ?? [];

/** The search terms of a part with their weights. */
interface Index {
  readonly family: Family;
  readonly buses: ReadonlySet<string>;
  readonly chip: readonly string[];
  readonly words: ReadonlySet<string>;
  readonly title: readonly string[];
  readonly labels: ReadonlySet<string>;
  readonly rest: readonly string[];
  readonly addresses: ReadonlySet<number>;
}

const BUSES = new Set(['i2c', 'spi', 'uart']);

const indexes = new WeakMap<PartSheet, Index>();

function indexOf(part: PartSheet): Index {
  let index = indexes.get(part);
  if (!index) {
    const labels = part.terminals.list.flatMap((t) => [t.label, ...(t.also ?? [])]);
    const pullUps = part.module.pullUps ? ['pull-up', 'pull-ups', 'pullup'] : [];
    const shift = part.module.levelShift ? ['level', 'shift', 'shifted'] : [];
    index = {
      chip: wordsOf(part.chip),
      words: new Set([...(part.words ?? []).flatMap(wordsOf), ...wordsOf(part.size ?? '')]),
      family: part.family,
      buses: new Set([part.bus.kind, ...part.terminals.list.map((t) => beforeFirst(t.role, '.'))]),
      title: wordsOf(part.title),
      labels: new Set(labels.map((label) => plain(label))),
      rest: [...wordsOf(part.summary), ...part.module.passives.flatMap(wordsOf), ...pullUps, ...shift],
      addresses: new Set((part.bus.devices ?? []).flatMap((d) => [...d.addresses, ...(d.alsoAnswers ?? [])].map((a) => a.address))),
    };
    indexes.set(part, index);
  }
  return index;
}

/** A requirement on the supply: `needs 5 V`, `3.3 V`. */
type SupplyWish = 'needs-5' | 'takes-3.3' | 'takes-5';

export interface PartQuery {
  readonly terms: readonly string[];
  /** Addresses to search for, 7-bit; an 8-bit form is halved. */
  readonly addresses: readonly number[];
  readonly supply: SupplyWish | undefined;
  /** The 8-bit forms that were halved, for the interface to say so. */
  readonly halved: readonly number[];
}

const SUPPLY: readonly (readonly [RegExp, SupplyWish])[] = [
  [/\b(?:needs?|only|wants?|must have) 5 ?v\b|\b5 ?v only\b/, 'needs-5'],
  [/\b(?:at|on|takes|for|with) 5 ?v\b|\b5 ?v\b/, 'takes-5'],
  [/\b(?:needs?|only|at|on|takes|for|with) 3\.?3 ?v\b|\b3\.3 ?v\b|\b3v3\b/, 'takes-3.3'],
];

/** What of a search text is read. */
const QUERY_LENGTH = 200;

/** Parses a search text: words, an address, a supply.
 *  @example readQuery('oled 0x78').addresses // [0x3c]: the 8-bit form is halved */
export function readQuery(text: string): PartQuery {
  let rest = plain(text.slice(0, QUERY_LENGTH));
  let supply: SupplyWish | undefined;
  for (const [pattern, wish] of SUPPLY) {
    if (supply || !pattern.test(rest)) continue;
    supply = wish;
    rest = rest.replace(pattern, ' ');
  }
  const addresses: number[] = [];
  const halved: number[] = [];
  rest = rest.replace(/\b0x([0-9a-f]{1,2})\b|\b([0-9a-f]{2})h\b/g, (_, a?: string, b = '') => {
    const value = parseInt(a ?? b, 16);
    if (value > 0x77) halved.push(value);
    addresses.push(value > 0x77 ? value >> 1 : value);
    return ' ';
  });
  return { terms: wordsOf(rest), addresses, supply, halved };
}

function meetsSupply(part: PartSheet, wish: SupplyWish): boolean {
  const range = part.supply?.volts;
  if (!range) return false;
  if (wish === 'needs-5') return range.min > 3.6 && range.min <= 5 && range.max >= 5;
  const volts = wish === 'takes-5' ? 5 : 3.3;
  return range.min <= volts && volts <= range.max;
}

/** The weight of a term for a part; 0 if it does not occur. */
function termScore(index: Index, term: string): number {
  if (term === index.family) return 12;
  // The name of a bus selects parts on it, not texts that mention it.
  if (BUSES.has(term)) return index.buses.has(term) ? 8 : 0;
  if (index.chip.includes(term)) return 10;
  if (index.words.has(term)) return 8;
  if (index.title.includes(term)) return 7;
  if (term.length >= 3 && index.chip.some((word) => word.startsWith(term))) return 7;
  if (index.labels.has(term)) return 5;
  if (index.title.some((word) => word.startsWith(term))) return 4;
  if ([...index.words].some((word) => word.startsWith(term))) return 4;
  if (term.length >= 3 && index.chip.some((word) => word.includes(term))) return 4;
  // A number in a sentence is often another part's.
  return !/^\d/.test(term) && index.rest.some((word) => word.startsWith(term)) ? 1 : 0;
}

/** Parts with their match score, best first.
 *  @param need `all`: only parts that match every word; `any`: those that match at least one */
export function scoreParts(
  parts: readonly PartSheet[],
  text: string,
  need: 'all' | 'any',
): readonly { readonly part: PartSheet; readonly score: number }[] {
  const best = new Map<PartSheet, number>();
  // What is typed counts before what means the same.
  for (const [way, words] of inOtherWords(plain(text.slice(0, QUERY_LENGTH))).entries()) {
    const query = readQuery(words);
    for (const part of parts) {
      const score = scoreOf(part, query, need);
      const worth = score && score - (way === 0 ? 0 : 0.5);
      if (worth !== undefined && worth > (best.get(part) ?? -1)) best.set(part, worth);
    }
  }
  return [...best].map(([part, score]) => ({ part, score })).sort((a, b) => b.score - a.score || a.part.title.localeCompare(b.part.title));
}

/** The match score of a part; undefined where it does not match. */
function scoreOf(part: PartSheet, query: PartQuery, need: 'all' | 'any'): number | undefined {
  const index = indexOf(part);
  const scores = [
    ...query.terms.map((term) => termScore(index, term)),
    ...query.addresses.map((address) => (index.addresses.has(address) ? 10 : 0)),
    ...(query.supply ? [meetsSupply(part, query.supply) ? 3 : 0] : []),
  ];
  const fits = scores.length === 0 || (need === 'all' ? scores.every((score) => score > 0) : scores.some((score) => score > 0));
  return fits ? scores.reduce((sum, score) => sum + score, 0) : undefined;
}

/** Parts that every word of the query fits, best first; all of them by title for an empty query. It understands
 *  chips, functions, printed labels, addresses (7-bit, or 8-bit above 0x77), sizes and supplies.
 *  @param family only parts of this family, where given
 *  @example searchParts(parts, 'oled i2c') // the OLED modules on I2C */
export function searchParts(parts: readonly PartSheet[], query: string, family?: Family): readonly PartSheet[] {
  return scoreParts(family ? parts.filter((part) => part.family === family) : parts, query, 'all').map(({ part }) => part);
}
