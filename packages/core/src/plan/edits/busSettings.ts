import { boardOf, type EditRule, refuse } from '../edit';

/** What the builder says about the bus of a controller, or (with `null`) nothing any more. */
export const busSettings: EditRule<'bus-settings'> = {
  kind: 'bus-settings',
  apply(plan, { controller, settings }, sheets) {
    const board = boardOf(plan, sheets);
    const { [controller]: before, ...others } = plan.busSettings;
    // What a sheet no longer has can still be taken away.
    if (settings && !board?.controllers.has(controller)) return refuse('controller', 'a controller of the board', controller);
    return {
      ok: true,
      plan: { ...plan, busSettings: settings ? { ...others, [controller]: settings } : others },
      inverse: [{ kind: 'bus-settings', controller, settings: before ?? null }],
    };
  },
};
