import { lastOrThrow } from '@roof-chart/core/collections/orThrow';
import { createSlice, type Draft, original, type PayloadAction } from '@reduxjs/toolkit';
import type { Edit } from '@roof-chart/core/plan/edit';
import type { Plan } from '@roof-chart/core/plan/plan';
import type { StoredPlan } from '@roof-chart/api/storedPlan';

/** One thing the user did, with the way back. */
export interface Step {
  readonly label: string;
  readonly edits: readonly Edit[];
  readonly inverse: readonly Edit[];
}

export interface Batch {
  readonly id: string;
  readonly edits: readonly Edit[];
  /** What the user did, for the history. */
  readonly label?: string;
}

/** Why waiting batches are not on the server: no response, disk full, signed out, or a choice between two plans. */
export type Waiting = 'offline' | 'full' | 'signed-out' | 'choice';
export type SaveState = 'saved' | 'saving' | Waiting;

export interface DocumentState {
  /** The plan as the user sees it: the ground with the waiting batches applied. */
  readonly plan: Plan | null;
  /** The plan as the server holds it at `revision`. */
  readonly ground: Plan | null;
  readonly revision: number;
  /** The life of the server's database that the revision counts in. */
  readonly epoch: string;
  readonly waiting: readonly Batch[];
  readonly save: SaveState;
  /** What the server holds after its database was restored or reset, where it differs from what is here; `gone` where it
   *  has no such plan any more. The user chooses. */
  readonly choice: StoredPlan | 'gone' | null;
  readonly past: readonly Step[];
  readonly future: readonly Step[];
}

const initialState: DocumentState = {
  plan: null,
  ground: null,
  revision: 0,
  epoch: '',
  waiting: [],
  save: 'saved',
  choice: null,
  past: [],
  future: [],
};

const UNDO_DEPTH = 500;

/** The plain state: reading a draft creates proxies, which takes seconds with thousands of waiting edits. */
const plain = (draft: Draft<DocumentState>): DocumentState => original(draft) ?? draft;

/** What a document is opened from. */
export type Opening = Partial<DocumentState> & { readonly plan: Plan; readonly revision: number };

/** The open document. Edits arrive already applied: reducers only record them. */
export const documentSlice = createSlice({
  name: 'document',
  initialState,
  reducers: {
    opened: (_state, { payload }: PayloadAction<Opening>): DocumentState => ({
      ...initialState,
      ground: payload.plan,
      ...payload,
    }),
    closed: (): DocumentState => initialState,
    did: (draft, { payload }: PayloadAction<{ plan: Plan; batch: Batch; step: Step }>): DocumentState => {
      const state = plain(draft);
      const { plan, batch, step } = payload;
      return { ...state, plan, waiting: [...state.waiting, batch], past: [...state.past, step].slice(-UNDO_DEPTH), future: [] };
    },
    undid: (draft, { payload }: PayloadAction<{ plan: Plan; batch: Batch }>): DocumentState => {
      const state = plain(draft);
      const { plan, batch } = payload;
      const future = [...state.future, lastOrThrow(state.past)];
      return { ...state, plan, waiting: [...state.waiting, batch], past: state.past.slice(0, -1), future };
    },
    redid: (draft, { payload }: PayloadAction<{ plan: Plan; batch: Batch }>): DocumentState => {
      const state = plain(draft);
      const { plan, batch } = payload;
      const past = [...state.past, lastOrThrow(state.future)];
      return { ...state, plan, waiting: [...state.waiting, batch], past, future: state.future.slice(0, -1) };
    },
    saving: (draft): DocumentState => ({ ...plain(draft), save: 'saving' }),
    held: (draft, { payload }: PayloadAction<Waiting>): DocumentState => ({ ...plain(draft), save: payload }),
    /** The server has taken the first waiting batches: they are part of the ground now. */
    saved: (draft, { payload }: PayloadAction<{ revision: number; batches: number; ground?: Plan }>): DocumentState => {
      const state = plain(draft);
      const waiting = state.waiting.slice(payload.batches);
      const { revision, ground = state.ground } = payload;
      return { ...state, revision, ground, waiting, save: waiting.length > 0 ? 'saving' : 'saved' };
    },
    /** An undo or redo step that no longer fits is dropped. */
    stepDropped: (draft, { payload }: PayloadAction<'past' | 'future'>): DocumentState => {
      const state = plain(draft);
      return { ...state, [payload]: state[payload].slice(0, -1) };
    },
    /** The plan was changed elsewhere: waiting batches are applied again on top of the new revision. */
    rebased: (
      draft,
      { payload }: PayloadAction<{ plan: Plan; ground: Plan; revision: number; epoch: string; waiting: readonly Batch[] }>,
    ): DocumentState => ({
      ...plain(draft),
      ...payload,
      choice: null,
      // Undo steps remain; one that no longer applies is reported when used.
      save: payload.waiting.length > 0 ? 'saving' : 'saved',
    }),
    /** The server's database is another one: nothing is sent until the user has chosen. */
    choiceAsked: (draft, { payload }: PayloadAction<StoredPlan | 'gone'>): DocumentState => ({
      ...plain(draft),
      choice: payload,
      save: 'choice',
    }),
  },
});

export const documentActions = documentSlice.actions;
