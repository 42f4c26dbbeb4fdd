/** How far a fact can be trusted: from a datasheet, a standard, typical of modules sold, or measured on the bench. */
export const TRUSTS = ['datasheet', 'standard', 'typical', 'bench'] as const;
export type Trust = (typeof TRUSTS)[number];

/** Where a group of facts comes from. */
export interface Source {
  readonly document: string;
  readonly section?: string;
  readonly trust: Trust;
  readonly note?: string;
}

export interface Sourced {
  readonly source: Source;
}

/** The source as one line for people.
 *  @example sourceLine({ document: 'UM10204', section: '7.1', trust: 'standard' }) // 'UM10204, 7.1 (standard)' */
export function sourceLine(source: Source): string {
  return `${source.document}${source.section ? `, ${source.section}` : ''} (${source.trust})`;
}
