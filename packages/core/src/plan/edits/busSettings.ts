import { beforeFirst } from '../../collections/orThrow';
import { boardOf, type EditRule, placementIndex, refuse } from '../edit';

/** The placement before a segment: `shifter-1`, or `multiplexer-1` of `multiplexer-1.3`. */
export const segmentPlacement = (segment: string): string => beforeFirst(segment, '.');

/** Sets the user's settings of a bus segment, or removes them (`null`). */
export const busSettings: EditRule<'bus-settings'> = {
  apply(plan, { segment, settings }, sheets) {
    const known = boardOf(plan, sheets)?.controllers.has(segment) === true || placementIndex(plan, segmentPlacement(segment)) >= 0;
    const { [segment]: before, ...others } = plan.busSettings;
    // Settings of something the sheet no longer has can still be removed.
    if (settings && !known) return refuse('segment', 'a controller of the board, or a part with a bus segment behind it', segment);
    return {
      ok: true,
      plan: { ...plan, busSettings: settings ? { ...others, [segment]: settings } : others },
      inverse: [{ kind: 'bus-settings', segment, settings: before ?? null }],
    };
  },
};
