import type { EditRule } from '../edit';

/** Accepts a finding with a reason, or withdraws the acceptance (`null`). The finding need not exist: it may disappear and return while
 *  the plan changes, and stays accepted. */
export const accept: EditRule<'accept'> = {
  apply(plan, edit) {
    const { [edit.finding]: before, ...others } = plan.accepted;
    return {
      ok: true,
      plan: { ...plan, accepted: edit.reason === null ? others : { ...others, [edit.finding]: edit.reason } },
      inverse: [{ ...edit, reason: before ?? null }],
    };
  },
};
