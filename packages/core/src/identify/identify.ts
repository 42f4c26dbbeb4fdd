import { getOrThrow } from '../collections/orThrow';
import type { PartSheet } from '../sheets/partSheet';
import { scoreParts } from '../sheets/searchParts';
import { markingFits } from './chipMarking';
import { LABEL_LIMITS, plainLabel, type RowContext, rowContext } from './labelForms';
import { MATCH_WORTH, matchRow, type RowMatch } from './matchLabels';
import { narrowDown } from './narrowDown';

/** What a person can read off a part in the hand; anything may be missing. */
export interface Clues {
  /** Connection points counted. */
  readonly pins?: number;
  /** Printed labels in the order of the row. */
  readonly labels?: readonly string[];
  /** Inches or resolution: `0.96`, `128x64`. */
  readonly size?: string;
  /** What it does, in a few words. */
  readonly does?: string;
  /** Marking of the chip. */
  readonly chip?: string;
}

/** A label that was read, with the terminal that it names and what it was recognised by. */
interface LabelEvidence {
  readonly label: string;
  /** Of the terminal. */
  readonly id: string;
  readonly terminal: string;
  readonly by: string;
}

export type Evidence =
  | { readonly is: 'labels'; readonly matched: readonly LabelEvidence[] }
  | { readonly is: 'strange-labels'; readonly labels: readonly string[] }
  | { readonly is: 'unseen-labels'; readonly labels: readonly string[] }
  | { readonly is: 'order'; readonly reversed: boolean }
  | { readonly is: 'pins'; readonly counted: number; readonly sheet: number }
  | { readonly is: 'size'; readonly size: string }
  | { readonly is: 'does'; readonly words: string }
  | { readonly is: 'chip'; readonly chip: string };

export interface Candidate {
  readonly part: PartSheet;
  /** From 0 to 1; only good for comparing candidates of one question. */
  readonly score: number;
  readonly speaksFor: readonly Evidence[];
  readonly speaksAgainst: readonly Evidence[];
}

export interface Identification {
  readonly candidates: readonly Candidate[];
  /** Questions whose answers part the first candidates, best first. */
  readonly settle: readonly string[];
}

/** The weight of a label: one printed on every module has little. */
class Rarity {
  readonly #parts = new Map<string, number>();
  /** Of the labels as written in the sheets. */
  readonly #known: ReadonlyMap<string, number>;

  constructor(private readonly all: readonly PartSheet[]) {
    const names = all.flatMap((part) => part.terminals.list.flatMap((t) => [t.label, ...(t.also ?? [])]));
    for (const part of all)
      for (const label of new Set(part.terminals.list.flatMap((t) => [t.label, ...(t.also ?? [])].map(plainLabel))))
        this.#parts.set(label, (this.#parts.get(label) ?? 0) + 1);
    this.#known = this.of(names);
  }

  /** How telling each of these labels is, worked out once for a question. */
  of(labels: readonly string[]): ReadonlyMap<string, number> {
    const worth = (label: string) => Math.log((this.all.length + 1) / ((this.#parts.get(plainLabel(label)) ?? 0) + 0.5));
    return new Map([...new Set(labels)].map((label) => [label, worth(label)]));
  }

  get known(): ReadonlyMap<string, number> {
    return this.#known;
  }
}

const rarities = new WeakMap<readonly PartSheet[], Rarity>();

/** The weight of a missing label: labels on the far side of a module are often not read. */
const MISSED = { needed: 0.7, optional: 0.12, outside: 0.05 } as const;

/** Share of the printed and the expected labels that belong together, weighed by how telling each is. */
function labelScore(row: RowMatch, { rarity, printed }: Weighing): number {
  const known = (label: string) => getOrThrow(rarity.known, label);
  const seen = row.matches.reduce((sum, m) => sum + known(m.terminal.label) * MATCH_WORTH[m.by], 0);
  const matched = row.matches.reduce((sum, m) => sum + known(m.terminal.label), 0);
  const strange = row.strange.reduce((sum, label) => sum + getOrThrow(printed, label), 0);
  const unseen = row.unseen.reduce((sum, t) => sum + known(t.label) * MISSED[t.need], 0);
  return matched + strange + unseen === 0 ? 0 : seen / (matched + strange + unseen);
}

const sameSize = (part: PartSheet, size: string): boolean => {
  const plain = (text: string) =>
    text
      .toLowerCase()
      .replace(/×/g, 'x')
      .replace(/["″]|inch/g, ' ');
  const have = plain([part.title, part.size ?? '', ...(part.words ?? [])].join(' ')).split(/[^0-9a-z.]+/);
  return plain(size)
    .split(/[^0-9a-z.]+/)
    .filter(Boolean)
    .every((word) => have.includes(word));
};

interface Weighing {
  readonly clues: Clues;
  readonly context: RowContext;
  readonly rarity: Rarity;
  /** How telling each printed label is. */
  readonly printed: ReadonlyMap<string, number>;
  readonly does: ReadonlyMap<string, number>;
  /** How well the chip marking fits a part. */
  readonly marking: (part: PartSheet) => number;
}

function weigh(part: PartSheet, weighing: Weighing): Candidate {
  const { clues, context, does } = weighing;
  const speaksFor: Evidence[] = [];
  const speaksAgainst: Evidence[] = [];
  let [score, most] = [0, 0];
  const clue = (weight: number, share: number, evidence: Evidence | null) => {
    most += weight;
    score += weight * share;
    if (evidence) (share >= 0.5 ? speaksFor : speaksAgainst).push(evidence);
  };
  if (clues.labels?.length) {
    const row = matchRow(clues.labels, part, context);
    const matched = row.matches.map((m) => ({ label: m.label, id: m.terminal.id, terminal: m.terminal.label, by: m.by }));
    clue(6, labelScore(row, weighing), null);
    if (matched.length > 0) speaksFor.push({ is: 'labels', matched });
    if (row.strange.length > 0) speaksAgainst.push({ is: 'strange-labels', labels: row.strange });
    const unseen = row.unseen.filter((t) => t.need === 'needed').map((t) => t.label);
    if (unseen.length > 0) speaksAgainst.push({ is: 'unseen-labels', labels: unseen });
    const inOrder = row.order === 1 && matched.length >= 3;
    // A row may be read from either end, but it is printed from one.
    clue(1, row.order * (row.reversed ? 0.85 : 1), inOrder ? { is: 'order', reversed: row.reversed } : null);
  }
  const pins = part.terminals.list.length;
  const counted = clues.pins ?? clues.labels?.length;
  if (counted) {
    // Counted may be the whole module or only the row towards the board.
    const row = part.terminals.list.filter((t) => t.role !== 'external').length;
    const away = Math.min(Math.abs(pins - counted), Math.abs(row - counted));
    const evidence: Evidence | null = clues.pins ? { is: 'pins', counted, sheet: pins } : null;
    clue(clues.pins ? 2 : 1, Math.max(0, 1 - away / Math.max(3, counted)) * (away === 0 ? 1 : 0.6), evidence);
  }
  if (clues.size) clue(3, sameSize(part, clues.size) ? 1 : 0, { is: 'size', size: clues.size });
  if (clues.does) clue(3, does.get(part.id) ?? 0, does.has(part.id) ? { is: 'does', words: clues.does } : null);
  if (clues.chip) {
    clue(8, weighing.marking(part), { is: 'chip', chip: clues.chip });
  }
  return { part, score: most === 0 ? 0 : score / most, speaksFor, speaksAgainst };
}

/** How well each part matches the words, 0 to 1. */
function fitsWords(parts: readonly PartSheet[], words: string | undefined): ReadonlyMap<string, number> {
  if (!words) return new Map();
  const scored = scoreParts(parts, words, 'any');
  const best = Math.max(...scored.map((s) => s.score), 1);
  return new Map(scored.map(({ part, score }) => [part.id, score / best]));
}

/** Which sheets a part in the hand may be, best first, with what speaks for and against each.
 *  @param parts the sheets to choose from: the same array each time makes later questions faster
 *  @returns at most `most` candidates; none where no clue fits */
export function identify(parts: readonly PartSheet[], given: Clues, most = 8): Identification {
  const clues = given.labels ? { ...given, labels: given.labels.slice(0, LABEL_LIMITS.labels) } : given;
  let rarity = rarities.get(parts);
  if (!rarity) rarities.set(parts, (rarity = new Rarity(parts)));
  const does = fitsWords(parts, clues.does);
  const { labels = [] } = clues;
  const weighing: Weighing = {
    clues,
    context: rowContext(labels),
    rarity,
    printed: rarity.of(labels),
    does,
    marking: markingFits(parts, clues.chip ?? ''),
  };
  const candidates = parts
    .map((part) => weigh(part, weighing))
    .filter((candidate) => candidate.score > 0.15)
    .sort((a, b) => b.score - a.score || a.part.title.localeCompare(b.part.title))
    .slice(0, most);
  return { candidates, settle: narrowDown(candidates, clues) };
}
