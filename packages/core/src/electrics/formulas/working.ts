/** One step of a calculation: the formula, the formula with its numbers, and the source. */
export interface Step {
  readonly formula: string;
  readonly values: string;
  readonly source: string;
}

/** A result with its working. */
export type Worked<T> = T & { readonly working: readonly Step[] };
