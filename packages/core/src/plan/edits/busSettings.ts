import { boardOf, type EditRule, placementIndex, refuse } from '../edit';

/** The placement that a segment lies behind: `shifter-1`, or of `multiplexer-1.3` what stands before the channel. */
export const segmentPlacement = (segment: string): string => segment.split('.')[0]!;

/** What the builder says about a stretch of a bus, or (with `null`) nothing any more. */
export const busSettings: EditRule<'bus-settings'> = {
  kind: 'bus-settings',
  apply(plan, { segment, settings }, sheets) {
    const known = boardOf(plan, sheets)?.controllers.has(segment) === true || placementIndex(plan, segmentPlacement(segment)) >= 0;
    const { [segment]: before, ...others } = plan.busSettings;
    // What a sheet no longer has can still be taken away.
    if (settings && !known) return refuse('segment', 'a controller of the board, or a part that a stretch of a bus lies behind', segment);
    return {
      ok: true,
      plan: { ...plan, busSettings: settings ? { ...others, [segment]: settings } : others },
      inverse: [{ kind: 'bus-settings', segment, settings: before ?? null }],
    };
  },
};
