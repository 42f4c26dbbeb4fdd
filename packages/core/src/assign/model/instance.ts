/** The pin assignment problem of one plan, with all facts of the sheets as lists and integers: a plain JSON
 *  document that any solver can be given (`cli settle --instance`).
 *
 *  To choose: a pin, or none, for each item; a controller, or none, for each member; a pin for each line of a
 *  controller that has a member with this line; an address option for each member that has a controller.
 *
 *  Hard rules:
 *   - a pin carries one item or one line;
 *   - items and lines only go to pins listed for them;
 *   - the lines of a controller that lists `sets` all come from one of them;
 *   - the lines of a member that are `fixed` are at those pins, and none of its lines at a pin to `avoid`;
 *   - two members of one `clash` are on different controllers;
 *   - members on one controller have no address in common;
 *   - no member of a controller has an address that is `beyond` one of its members (two may have the same beyond them: their
 *     channels need not be open at once);
 *   - of one `resource`, two items of a pair that excludes each other are not both users;
 *   - of each of the `groups` one alternative holds: the items it lists are at pins it lists for them, or open;
 *   - a candidate with `unless` is out where that controller has a member.
 *
 *  Costs are compared tier by tier, each a sum of whole numbers:
 *   1. `unwired`: required terminals that stay unconnected;
 *   2. `moved`: wires of the plan that change (changed straps included); a removed wire counts twice;
 *   3. `caution`: pins used that the sheet advises caution with;
 *   4. `unusual`: for each bus line, chip select and one-wire bus, how far its pin is from what people use first on the board: 0 for the
 *      first choice of the sheet, 1 for the second, 2 for any other; and 1 for whatever is at a pin of the first bus of a kind and is not
 *      listed there;
 *   5. `waste`: for each pin used, the scarcity of every ability it has and its user does not need. */
export interface Instance {
  readonly format: 'roof-chart-instance';
  readonly version: 2;
  readonly items: readonly Item[];
  readonly members: readonly Member[];
  readonly controllers: readonly BusController[];
  /** Pairs of members that must not share a controller. */
  readonly clashes: readonly (readonly [string, string])[];
  readonly resources: readonly Resource[];
  /** Absent where no signals are wished to lie together. */
  readonly groups?: readonly Group[];
}

export interface Costs {
  readonly unwired: number;
  readonly moved: number;
  readonly caution: number;
  readonly unusual: number;
  readonly waste: number;
}

/** The cost difference of two plans, tier by tier; a lower tier may be negative. */
export function lessCosts(a: Costs, b: Costs): Costs {
  return {
    unwired: a.unwired - b.unwired,
    moved: a.moved - b.moved,
    caution: a.caution - b.caution,
    unusual: a.unusual - b.unusual,
    waste: a.waste - b.waste,
  };
}

export interface Candidate {
  readonly pin: string;
  readonly moved: number;
  readonly caution: number;
  readonly unusual: number;
  readonly waste: number;
  /** Shared resources that the pin brings along: a timer, a channel, an interrupt line. */
  readonly uses?: readonly string[];
  readonly unless?: string;
}

/** One signal of its own: a terminal, or several that carry the same signal. */
export interface Item {
  readonly id: string;
  readonly terminals: readonly string[];
  readonly candidates: readonly Candidate[];
  /** What it costs to give it no pin. */
  readonly leave: Pick<Costs, 'unwired' | 'moved'>;
}

export interface AddressOption {
  readonly addresses: readonly number[];
  /** Strap states that select it. */
  readonly straps: { readonly [strap: string]: string };
  readonly moved: number;
}

/** A part on a bus, or the parts of one chain. */
export interface Member {
  readonly id: string;
  readonly kind: string;
  readonly placements: readonly string[];
  readonly lines: readonly string[];
  /** Controllers it may join. */
  readonly controllers: readonly string[];
  /** Pins where its lines must be: locked wires. */
  readonly fixed: { readonly [line: string]: string };
  readonly avoid?: { readonly [line: string]: readonly string[] };
  /** Wires that its lines have now: of how many terminals at which pin. */
  readonly here: { readonly [line: string]: { readonly [pin: string]: number } };
  /** Empty for buses without addresses. */
  readonly addresses: readonly AddressOption[];
  /** Addresses that answer behind its channels, while one is open; absent where there are none. */
  readonly beyond?: readonly number[];
  readonly leave: Pick<Costs, 'unwired' | 'moved'>;
}

export interface LinePin {
  readonly pin: string;
  readonly caution: number;
  readonly unusual: number;
  readonly waste: number;
}

export interface BusController {
  readonly id: string;
  readonly kind: string;
  readonly lines: { readonly [line: string]: readonly LinePin[] };
  /** Absent where each line is chosen for itself. */
  readonly sets?: readonly { readonly [line: string]: string }[];
}

/** Something that several pins share, and which users of it exclude each other. */
export interface Resource {
  readonly id: string;
  readonly pairs: readonly (readonly [string, string])[];
}

/** Items that are wished to lie together, and every way in which they can. */
export interface Group {
  readonly id: string;
  readonly alternatives: readonly { readonly [item: string]: readonly string[] }[];
}

/** What was chosen. Items and members that are absent stay open. */
export interface Choice {
  readonly items: { readonly [item: string]: string };
  readonly members: { readonly [member: string]: { readonly controller: string; readonly address: AddressOption | undefined } };
  readonly lines: { readonly [controller: string]: { readonly [line: string]: string } };
}
