import type { Choice, Costs } from '../model/instance';

export interface SolveOptions {
  /** Looked at between nodes: whether to stop with the best found. */
  readonly stop?: () => boolean;
  /** Most nodes of the search, for a bound on the time that does not depend on the machine. */
  readonly nodes?: number;
  /** Hears of each better choice. */
  readonly onBetter?: (costs: Costs) => void;
}

export interface Solved {
  readonly choice: Choice;
  readonly costs: Costs;
  /** Nothing can cost less than this; equal to `costs` where the choice is proved best. */
  readonly bound: Costs;
  readonly proved: boolean;
  /** Nodes of the search: a measure of the work that is the same on every machine. */
  readonly nodes: number;
}
