import { createSelector } from '@reduxjs/toolkit';
import { type Finding, isAboutFacts, type Level } from '@roof-chart/core/checks/engine/check';
import type { Reviewed } from './reviewSlice';
import type { RootState } from './store';

const selectPlanId = (state: RootState): string | undefined => state.document.plan?.id;

/** The newest review of the open plan, or null until the first is there. It may be of the plan a moment ago. */
export const selectReviewed: (state: RootState) => Reviewed | null = createSelector(
  [(state: RootState) => state.review.latest, selectPlanId],
  (latest, id) => (latest && latest.plan.id === id ? latest : null),
);

const NO_FINDINGS: readonly Finding[] = [];

/** Every finding of that review, accepted ones last. */
export const selectFindings: (state: RootState) => readonly Finding[] = createSelector([selectReviewed], (reviewed) =>
  reviewed?.result.ok ? reviewed.result.review.findings : NO_FINDINGS,
);

/** Those about the plan, accepted ones among them: the ones about its sheets are shown apart. */
export const selectPlanFindings = createSelector([selectFindings], (findings) => findings.filter((finding) => !isAboutFacts(finding)));

/** Findings by what is to be done about them: those of the plan, those about its sheets, those that were accepted. */
export const selectSortedFindings = createSelector([selectFindings], (findings) => {
  const standing = findings.filter(({ accepted }) => accepted === undefined);
  return {
    open: standing.filter((finding) => !isAboutFacts(finding)),
    facts: standing.filter(isAboutFacts),
    accepted: findings.filter(({ accepted }) => accepted !== undefined),
  };
});

/** How many findings of each level are open. */
export const selectFindingCounts: (state: RootState) => { readonly [L in Level]: number } = createSelector(
  [selectSortedFindings],
  ({ open }) => {
    const count = (level: Level) => open.filter((finding) => finding.level === level).length;
    return { clash: count('clash'), risk: count('risk'), hint: count('hint') };
  },
);

/** The step that undo would revert; undefined where there is none. */
export const selectUndoLabel = (state: RootState): string | undefined => state.document.past.at(-1)?.label;
export const selectRedoLabel = (state: RootState): string | undefined => state.document.future.at(-1)?.label;
