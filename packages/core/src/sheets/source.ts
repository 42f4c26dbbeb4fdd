import type { BenchNote } from './benchNote';

/** How far a fact can be trusted: from a datasheet, a standard, typical of modules sold, or measured on the bench. */
export const TRUSTS = ['datasheet', 'standard', 'typical', 'bench'] as const;
export type Trust = (typeof TRUSTS)[number];

/** Where a group of facts comes from. */
export interface Source {
  readonly document: string;
  readonly section?: string;
  readonly trust: Trust;
  readonly note?: string;
  /** Bench notes on facts of this group; added by a plan, never stored in a sheet. */
  readonly benchNotes?: readonly BenchNote[];
}

export interface Sourced {
  readonly source: Source;
}

const noteLine = ({ fact, value, words, date }: BenchNote): string =>
  `${fact} ${value === undefined ? 'confirmed' : `is ${Array.isArray(value) ? value.join(', ') : String(value)}`} on the bench ${date}: ${words}`;

/** The source as one line for people, with the bench notes about it.
 *  @param about leaves out notes about other members of the group (`pins/GP4`)
 *  @example sourceLine({ document: 'UM10204', section: '7.1', trust: 'standard' }) // 'UM10204, 7.1 (standard)' */
export function sourceLine(source: Source, about?: string): string {
  const notes = (source.benchNotes ?? []).filter(
    ({ fact }) => !about || fact === about || `${about}/`.startsWith(`${fact}/`) || fact.startsWith(`${about}/`),
  );
  return [`${source.document}${source.section ? `, ${source.section}` : ''} (${source.trust})`, ...notes.map(noteLine)].join('; ');
}
