import type { AddressOption } from '../model/instance';

/** What is decided so far. */
export interface State {
  /** Controller of each member by place, -1 for none, undefined for not yet. */
  readonly at: readonly (number | undefined)[];
  /** Chosen set of each controller that lists sets. */
  readonly sets: readonly (number | undefined)[];
  /** Items that may not use a resource: `item place:resource`. */
  readonly banned: ReadonlySet<string>;
}

/** What a pin is to be found for: an item, a line of a controller, or a line that whichever controller of its kind will bring. */
export type Row =
  | { readonly for: 'item'; readonly item: number }
  | { readonly for: 'controller'; readonly controller: number; readonly line: string }
  | {
      readonly for: 'kind';
      readonly kind: string;
      readonly line: string;
      /** What it costs at least without a controller. */
      readonly leave?: number;
    };

export interface Evaluated {
  /** Costs of this very assignment, which may break a rule about shared resources. */
  readonly cost: number;
  /** Nothing below this state costs less. */
  readonly bound: number;
  readonly rows: readonly Row[];
  readonly pins: readonly string[];
  readonly columns: Int32Array;
  /** Another assignment, dearer perhaps, but one that breaks no rule. */
  readonly legal?: { readonly cost: number; readonly columns: Int32Array };
  readonly addresses: readonly (readonly (AddressOption | undefined)[])[];
}
