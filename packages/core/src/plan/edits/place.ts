import { beforeFirst } from '../../collections/orThrow';
import { boardOf, type EditRule, placementIndex, refuse } from '../edit';
import { PLAN_LIMITS } from '../plan';
import { segmentPlacement } from './busSettings';

/** What is placed besides parts and their components: the board, what a bare chip needs, and strips where wires meet. */
const OWN_ITEMS: readonly string[] = ['board', 'chip', 'net'];

/** Plugs something into the breadboard, or takes its place away. */
export const place: EditRule<'place'> = {
  apply(plan, { item, place: wanted }, sheets) {
    const { [item]: before, ...others } = plan.places;
    const owner = segmentPlacement(beforeFirst(item, ':'));
    const isKnown = OWN_ITEMS.includes(owner) || placementIndex(plan, owner) >= 0 || boardOf(plan, sheets)?.controllers.has(owner) === true;
    if (wanted && !isKnown) return refuse('item', 'the board, a part or a component of this plan', item);
    if (wanted && before === undefined && Object.keys(others).length >= PLAN_LIMITS.places)
      return refuse('item', `at most ${PLAN_LIMITS.places} places`, 'one more');
    return {
      ok: true,
      plan: { ...plan, places: wanted ? { ...others, [item]: wanted } : others },
      inverse: [{ kind: 'place', item, place: before ?? null }],
    };
  },
};
