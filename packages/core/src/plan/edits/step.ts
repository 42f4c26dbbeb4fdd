import { type EditRule, refuse } from '../edit';
import { PLAN_LIMITS } from '../plan';

/** Marks a build step other than a wire as done or not done. */
export const step: EditRule<'step'> = {
  apply(plan, { step: id, done }) {
    const { [id]: before, ...others } = plan.steps;
    if (done !== null && before === undefined && Object.keys(others).length >= PLAN_LIMITS.steps)
      return refuse('step', `at most ${PLAN_LIMITS.steps} steps`, 'one more');
    return {
      ok: true,
      plan: { ...plan, steps: done === null ? others : { ...others, [id]: done } },
      inverse: [{ kind: 'step', step: id, done: before ?? null }],
    };
  },
};
