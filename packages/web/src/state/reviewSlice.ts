import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { Plan } from '@roof-chart/core/plan/plan';
import type { ReviewResult } from '@roof-chart/core/review/review';

/** A review with the very plan it is of: texts must be made from that plan, not from a later one. */
export interface Reviewed {
  readonly plan: Plan;
  readonly result: ReviewResult;
}

export interface ReviewState {
  readonly latest: Reviewed | null;
  /** Why the open plan is not checked; null where it is, or will be soon. */
  readonly failure: string | null;
}

const initialState: ReviewState = { latest: null, failure: null };

/** What the checks say about the open plan, and about the one before it until they have answered. */
export const reviewSlice = createSlice({
  name: 'review',
  initialState,
  reducers: {
    /** The open plan is to be checked, whatever is known of it. */
    requested: (): ReviewState => initialState,
    reviewed: (_state, { payload }: PayloadAction<Reviewed>): ReviewState => ({ latest: payload, failure: null }),
    /** The review of an earlier plan must not pass for that of this one. */
    failed: (_state, { payload }: PayloadAction<string>): ReviewState => ({ latest: null, failure: payload }),
  },
});

export const reviewActions = reviewSlice.actions;
