import { behindShifter } from '../../assign/behindShifter';
import { addedPullUp } from '../../electrics/reports/busInputs';
import { overdrivenBy } from '../../electrics/reports/segmentReport';
import type { CheckContext, Remedy } from '../engine/check';
import { signalRail } from '../levels/signalRail';
import { addResistor, type BusSegment, wellAfter } from './busSegments';

/** What the pull-ups of a level shifter's side add, in ohms; those of the usual modules. */
const SHIFTER_OHMS = 10_000;

/** Whether all idle levels are within limits once some parts are behind a level shifter. */
function wellWithout({ report }: BusSegment, ids: ReadonlySet<string>): boolean {
  const { input, limits } = report;
  const side = { id: 'shifter', ohms: { min: SHIFTER_OHMS, max: SHIFTER_OHMS }, volts: input.vdd };
  const rail = limits.find((limit) => limit.id === 'board')?.feed.rail;
  const pulls = [...input.pullUps.filter((p) => !ids.has(p.id)), { ...side, ...(rail === undefined ? {} : { rail }) }];
  return (
    overdrivenBy(
      limits.filter((limit) => !ids.has(limit.id)),
      pulls,
    ).length === 0
  );
}

/** Parts behind a level shifter.
 *  @param groups of parts to try, the first that helps is taken: those that pull higher, those that do not take what the board pulls to */
export function shiftedSegments(context: CheckContext, segment: BusSegment, groups: readonly (readonly string[])[]): readonly Remedy[] {
  if (segment.report.segment.via) return [];
  for (const ids of groups) {
    if (ids.length === 0 || !wellWithout(segment, new Set(ids))) continue;
    const found = behindShifter(context, ids, 'i2c', (id) => signalRail(context, id));
    if (!found) continue;
    return [
      {
        label: 'shift',
        data: { parts: { is: 'placements', ids }, shifter: { is: 'words', text: found.part.title } },
        grade: 'offered',
        edits: found.edits,
      },
    ];
  }
  return [];
}

/** Fixes for missing or weak pull-ups of a segment: a resistor on each line; if the level would be too high for a device, a level
 *  shifter before it, which has its own pull-ups. */
export function broughtHigh(context: CheckContext, segment: BusSegment): readonly Remedy[] {
  const { add, input, limits, overdriven } = segment.report;
  if (add === undefined) return [];
  const rail = limits.find((limit) => limit.id === 'board')?.feed.rail;
  const others = input.pullUps.filter((p) => p.id !== 'added');
  const pullUps = [...others, addedPullUp(add, { volts: input.vdd, ...(rail === undefined ? {} : { rail }) })];
  const before = new Set(overdriven.map((one) => one.id));
  const tooHigh = overdrivenBy(limits, pullUps).map((one) => one.id);
  if (tooHigh.every((id) => before.has(id))) return addResistor(context, segment, add);
  const parts = tooHigh.filter((id) => id !== 'board');
  return shiftedSegments(context, segment, [parts]).filter((remedy) => wellAfter(context, segment, remedy.edits));
}
