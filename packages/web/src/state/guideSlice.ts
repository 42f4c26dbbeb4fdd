import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

/** Where the browser keeps which plan is the guided example. */
const KEY = 'roof-chart-guide';

/** Storage may be forbidden: then there is no guide after a reload, and nothing else is lost. */
function readGuide(): string | null {
  try {
    return localStorage.getItem(KEY);
  } catch {
    return null;
  }
}

/** Keeps which plan is the guided example, for the next time. */
export function writeGuide(planId: string | null): void {
  try {
    if (planId === null) localStorage.removeItem(KEY);
    else localStorage.setItem(KEY, planId);
  } catch {
    // Kept for this page alone.
  }
}

/** The plan that is the guided example, if any. */
export const guideSlice = createSlice({
  name: 'guide',
  initialState: (): { readonly planId: string | null } => ({ planId: readGuide() }),
  reducers: {
    guideStarted: (_state, { payload }: PayloadAction<string>) => ({ planId: payload }),
    /** The plan stays as it is, without its guide. */
    guideLeft: () => ({ planId: null }),
  },
});

export const guideActions = guideSlice.actions;
