import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { Edit } from '@roof-chart/core/plan/edit';
import type { Plan } from '@roof-chart/core/plan/plan';

/** One thing the user did, with the way back. */
export interface Step {
  readonly label: string;
  readonly edits: readonly Edit[];
  readonly inverse: readonly Edit[];
}

export interface Batch {
  readonly id: string;
  readonly edits: readonly Edit[];
}

export type SaveState = 'saved' | 'saving' | 'offline';

export interface DocumentState {
  /** The plan as the user sees it: the server's revision with the waiting batches applied. */
  readonly plan: Plan | null;
  /** The server's revision under the waiting batches. */
  readonly revision: number;
  readonly waiting: readonly Batch[];
  readonly save: SaveState;
  readonly past: readonly Step[];
  readonly future: readonly Step[];
}

const initialState: DocumentState = { plan: null, revision: 0, waiting: [], save: 'saved', past: [], future: [] };

const UNDO_DEPTH = 500;

/** The open document. Edits arrive already applied: reducers only record them. */
export const documentSlice = createSlice({
  name: 'document',
  initialState,
  reducers: {
    opened: (_state, { payload }: PayloadAction<Partial<DocumentState> & { plan: Plan; revision: number }>): DocumentState => ({
      ...initialState,
      ...payload,
    }),
    closed: (): DocumentState => initialState,
    did: (state, { payload }: PayloadAction<{ plan: Plan; batch: Batch; step: Step }>): DocumentState => ({
      ...(state as DocumentState),
      plan: payload.plan,
      waiting: [...state.waiting, payload.batch] as Batch[],
      past: [...state.past, payload.step].slice(-UNDO_DEPTH) as Step[],
      future: [],
    }),
    undid: (state, { payload }: PayloadAction<{ plan: Plan; batch: Batch }>): DocumentState => ({
      ...(state as DocumentState),
      plan: payload.plan,
      waiting: [...state.waiting, payload.batch] as Batch[],
      past: state.past.slice(0, -1) as Step[],
      future: [...state.future, state.past.at(-1)!] as Step[],
    }),
    redid: (state, { payload }: PayloadAction<{ plan: Plan; batch: Batch }>): DocumentState => ({
      ...(state as DocumentState),
      plan: payload.plan,
      waiting: [...state.waiting, payload.batch] as Batch[],
      past: [...state.past, state.future.at(-1)!] as Step[],
      future: state.future.slice(0, -1) as Step[],
    }),
    saving: (state): DocumentState => ({ ...(state as DocumentState), save: 'saving' }),
    offline: (state): DocumentState => ({ ...(state as DocumentState), save: 'offline' }),
    /** The server has taken the first waiting batches. */
    saved: (state, { payload }: PayloadAction<{ revision: number; batches: number }>): DocumentState => {
      const waiting = state.waiting.slice(payload.batches) as Batch[];
      return { ...(state as DocumentState), revision: payload.revision, waiting, save: waiting.length > 0 ? 'saving' : 'saved' };
    },
    /** An undo or redo step that no longer fits is dropped. */
    stepDropped: (state, { payload }: PayloadAction<'past' | 'future'>): DocumentState => ({
      ...(state as DocumentState),
      [payload]: state[payload].slice(0, -1),
    }),
    /** Somebody else changed the plan: their revision is the ground, our waiting batches are laid on it again. */
    rebased: (state, { payload }: PayloadAction<{ plan: Plan; revision: number; waiting: readonly Batch[] }>): DocumentState => ({
      ...(state as DocumentState),
      ...payload,
      // Undo steps stay: one that no longer fits says so when it is asked for.
      save: payload.waiting.length > 0 ? 'saving' : 'saved',
    }),
  },
});

export const documentActions = documentSlice.actions;
