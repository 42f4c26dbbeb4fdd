import { atOrThrow, orThrow } from '../../collections/orThrow';
/** Lines that are one while they are low and part as they rise: what a MOSFET between two supplies does (AN10441, 2). */

/** A line segment: its equivalent pull-up, its idle level, and its capacitance. */
export interface RiseNode {
  readonly ohms: number;
  /** Its idle level alone, in volts. */
  readonly rest: number;
  readonly farads: number;
  /** Where it parts from the others, in volts; absent for the one that all others join, and where nothing parts them. */
  readonly partsAt?: number;
}

/** A time interval in which a line rises along one exponential. */
interface Phase {
  readonly from: number;
  readonly start: number;
  readonly rest: number;
  readonly tau: number;
}

const together = (nodes: readonly RiseNode[]): { readonly rest: number; readonly tau: number } => {
  const ohms = 1 / nodes.reduce((sum, n) => sum + 1 / n.ohms, 0);
  // A segment without a pull-up only adds capacitance.
  const amps = nodes.reduce((sum, n) => sum + (Number.isFinite(n.ohms) ? n.rest / n.ohms : 0), 0);
  return { rest: ohms === Infinity ? 0 : ohms * amps, tau: ohms * nodes.reduce((sum, n) => sum + n.farads, 0) };
};

/** The voltage of each of several joined lines over time, released at 0 V. */
export class JoinedRise {
  readonly #phases: readonly Phase[][];

  /** @param nodes the first is the one that the others join */
  constructor(nodes: readonly [RiseNode, ...RiseNode[]]) {
    const phases: Phase[][] = nodes.map(() => []);
    let joined = nodes.map((_, at) => at);
    let [time, volts] = [0, 0];
    const put = (members: readonly number[], alone: readonly RiseNode[]) => {
      const { rest, tau } = together(alone);
      for (const at of members) atOrThrow(phases, at).push({ from: time, start: volts, rest, tau });
      return { rest, tau };
    };
    for (;;) {
      const { rest, tau } = put(
        joined,
        joined.map((at) => atOrThrow(nodes, at)),
      );
      const next = Math.min(...joined.map((at) => (at === 0 ? Infinity : (atOrThrow(nodes, at).partsAt ?? Infinity))));
      // A line that never reaches its separation voltage stays joined.
      if (!(rest > next) || !Number.isFinite(tau)) break;
      if (next > volts) {
        time += tau * Math.log((rest - volts) / (rest - next));
        volts = next;
      }
      const parting = joined.filter((at) => at !== 0 && (atOrThrow(nodes, at).partsAt ?? Infinity) <= next);
      joined = joined.filter((at) => !parting.includes(at));
      for (const at of parting) put([at], [atOrThrow(nodes, at)]);
    }
    this.#phases = phases;
  }

  /** Seconds until a line reaches a voltage; infinite where it never does. */
  reaches(node: number, volts: number): number {
    const phases = atOrThrow(this.#phases, node);
    for (const [at, { from, start, rest, tau }] of phases.entries()) {
      if (volts <= start) return from;
      if (rest <= volts || !Number.isFinite(tau)) continue;
      const when = from + tau * Math.log((rest - start) / (rest - volts));
      if (when <= (phases[at + 1]?.from ?? Infinity)) return when;
    }
    return Infinity;
  }

  /** Rise from 0.3 to 0.7 of a supply, in seconds. */
  rise(node: number, vdd: number): number {
    const end = this.reaches(node, 0.7 * vdd);
    return end === Infinity ? Infinity : end - this.reaches(node, 0.3 * vdd);
  }

  /** The voltage of a line at a time. */
  at(node: number, seconds: number): number {
    const { from, start, rest, tau } = orThrow(
      atOrThrow(this.#phases, node).findLast((p) => p.from <= seconds),
      'phase at this time',
    );
    return Number.isFinite(tau) ? rest + (start - rest) * Math.exp(-(seconds - from) / tau) : start;
  }
}
