import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

export type WireScope = 'signals' | 'supplies' | 'all';

/** What the user looks at; gone with the tab. */
export interface SessionState {
  readonly terminal: string | null;
  readonly pin: string | null;
  readonly finding: string | null;
  readonly scope: WireScope;
  /** Roomy rows and columns are easier to hit with a finger. */
  readonly roomy: boolean;
  /** Assigns pins after every change. */
  readonly auto: boolean;
  /** The server requires sign-in. */
  readonly signedOut: boolean;
}

const initialState: SessionState = {
  terminal: null,
  pin: null,
  finding: null,
  scope: 'signals',
  roomy: false,
  auto: false,
  signedOut: false,
};

export const sessionSlice = createSlice({
  name: 'session',
  initialState,
  reducers: {
    focused: (state, { payload }: PayloadAction<{ terminal?: string | null; pin?: string | null }>) => ({ ...state, ...payload }),
    findingChosen: (state, { payload }: PayloadAction<{ finding: string | null; terminal?: string; pin?: string; scope?: WireScope }>) => ({
      ...state,
      finding: payload.finding,
      terminal: payload.terminal ?? state.terminal,
      pin: payload.pin ?? state.pin,
      scope: payload.scope ?? state.scope,
    }),
    scopeChosen: (state, { payload }: PayloadAction<WireScope>) => ({ ...state, scope: payload }),
    densityChosen: (state, { payload }: PayloadAction<boolean>) => ({ ...state, roomy: payload }),
    autoChosen: (state, { payload }: PayloadAction<boolean>) => ({ ...state, auto: payload }),
    signedOutChanged: (state, { payload }: PayloadAction<boolean>) => ({ ...state, signedOut: payload }),
    sessionCleared: (state) => ({ ...initialState, roomy: state.roomy, auto: state.auto, signedOut: state.signedOut }),
  },
});

export const sessionActions = sessionSlice.actions;
