/** One step of a calculation as it can be shown: the formula, the same with its numbers put in, and where it is from. */
export interface Step {
  readonly formula: string;
  readonly values: string;
  readonly source: string;
}

/** A result with its working. */
export type Worked<T> = T & { readonly working: readonly Step[] };
