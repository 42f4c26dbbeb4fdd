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
  /** What a screen reader says next. */
  readonly announcement: string;
}

const initialState: SessionState = {
  terminal: null,
  pin: null,
  finding: null,
  scope: 'signals',
  roomy: false,
  auto: false,
  signedOut: false,
  announcement: '',
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
    /** A repeated text would not be read again; the invisible mark makes it another text. */
    announced: (state, { payload }: PayloadAction<string>) => ({
      ...state,
      announcement: payload === state.announcement ? `${payload}\u200b` : payload,
    }),
    sessionCleared: ({ roomy, auto, signedOut, announcement }) => ({ ...initialState, roomy, auto, signedOut, announcement }),
  },
});

export const sessionActions = sessionSlice.actions;
