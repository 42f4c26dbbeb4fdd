import type { Segment } from '../../nets/segments';
import type { Placement, Plan } from '../../plan/plan';
import type { IndexedBoard } from '../../sheets/sheetIndex';

/** Most that the input of an I2C part loads a line with, by UM10204. */
const INPUT_PICOFARADS = 10;
const PICOFARADS_PER_CM = 1;
const PICOFARADS_PER_NODE = 3;
const CM_PER_MEMBER = 10;

export interface CapacitanceParts {
  readonly inputs: number;
  readonly wire: number;
  readonly nodes: number;
  /** Measured value; replaces the estimate. */
  readonly measured?: number;
  /** All of it, in farads. */
  readonly farads: number;
}

/** Shifters that begin at a segment. */
export const shiftersAt = (segments: readonly Segment[], segment: Segment): readonly Placement[] =>
  segments.flatMap(({ via }) => (via && via.by !== 'channel' && via.parent === segment.id ? [via.placement] : []));

/** The capacitance of a line, in picofarads: estimated from inputs, wire and nodes, unless it was measured. */
export function capacitanceOf(plan: Plan, board: IndexedBoard, segments: readonly Segment[], segment: Segment): CapacitanceParts {
  const settings = plan.busSettings[segment.id];
  const ends = segment.members.length + shiftersAt(segments, segment).length;
  // The end of the segment: the board's pin, or a shifter or channel.
  const start = segment.via ? INPUT_PICOFARADS : (board.sheet.electrical.pinCapacitancePicofarads ?? INPUT_PICOFARADS);
  const inputs = ends * INPUT_PICOFARADS + start;
  const wire = (settings?.wireCm ?? ends * CM_PER_MEMBER) * PICOFARADS_PER_CM;
  const nodes = (ends + 1) * PICOFARADS_PER_NODE;
  const measured = settings?.picofarads;
  return { inputs, wire, nodes, ...(measured === undefined ? {} : { measured }), farads: (measured ?? inputs + wire + nodes) * 1e-12 };
}
