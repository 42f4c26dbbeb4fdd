import { boardOf, type EditRule, placementIndex, refuse } from '../edit';
import { PLAN_LIMITS, splitKey } from '../plan';
import { segmentPlacement } from './busSettings';

/** Keeps the reference designator of a component, or (`null`) lets it follow the order of the plan again. Two of one name are for the
 *  checks to report. */
export const reference: EditRule<'reference'> = {
  apply(plan, { component, name }, sheets) {
    const { [component]: before, ...others } = plan.references;
    const owner = segmentPlacement(splitKey(component).placement);
    const known = placementIndex(plan, owner) >= 0 || boardOf(plan, sheets)?.controllers.has(owner) === true;
    if (name !== null && !known) return refuse('component', 'a component of a part or a bus of this plan', component);
    if (name !== null && before === undefined && Object.keys(others).length >= PLAN_LIMITS.references)
      return refuse('component', `at most ${PLAN_LIMITS.references} reference designators`, 'one more');
    return {
      ok: true,
      plan: { ...plan, references: name === null ? others : { ...others, [component]: name } },
      inverse: [{ kind: 'reference', component, name: before ?? null }],
    };
  },
};
