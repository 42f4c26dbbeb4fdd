import type { Shape } from './sheetShape';
import { type BaseQueryFn, createApi, type FetchArgs, fetchBaseQuery, type FetchBaseQueryError } from '@reduxjs/toolkit/query/react';
import type { Edit } from '@roof-chart/core/plan/edit';
import type { Thumbnail } from '@roof-chart/core/outputs/thumbnail';
import type { Plan } from '@roof-chart/core/plan/plan';
import type { BoardSheet } from '@roof-chart/core/sheets/boardSheet';
import type { PartSheet } from '@roof-chart/core/sheets/partSheet';
import { sessionActions } from './sessionSlice';

export interface PlanSummary {
  readonly id: string;
  readonly name: string;
  readonly board: string;
  readonly parts: number;
  readonly revision: number;
  readonly updatedAt: string;
  readonly thumbnail: Thumbnail;
}

export interface StoredPlan {
  readonly plan: Plan;
  readonly revision: number;
  /** The life of the server's database that the revision counts in. */
  readonly epoch: string;
  /** Ids of the batches the server took last, newest first. */
  readonly recent: readonly string[];
}

export interface Checkpoint {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
  readonly at: string;
}

export interface KeptSheet {
  readonly id: string;
  readonly version: number;
  readonly how: 'new' | 'changed' | 'same';
}

/** One line of a plan's history. */
export interface HistoryEntry {
  readonly revision: number;
  readonly at: string;
  readonly label: string | null;
  readonly device: string | null;
  readonly tab: string | null;
  /** Whether the server still stores its edits, so that the step can be reverted on its own. */
  readonly kept: boolean;
}

/** The result of importing an archive. */
export interface ArchiveReport {
  readonly plans: number;
  readonly versions: number;
  readonly sheets: number;
  readonly same: number;
  readonly skipped: readonly { readonly path: string; readonly fault: string }[];
}

/** Edits on their way to the server. */
export interface SentBatches {
  readonly planId: string;
  /** What they were made on. */
  readonly revision: number;
  readonly epoch: string;
  /** As JSON: its length says whether it can be kept alive. */
  readonly body: string;
  /** Whether the browser ends the request although the page closes. */
  readonly keepalive: boolean;
}

export interface SheetUse {
  readonly where: 'plan' | 'deleted plan' | 'saved version';
  readonly plan: string;
  readonly name: string;
  readonly versions: readonly number[];
}

const request = fetchBaseQuery({ baseUrl: '/api' });

/** Every request; one refused without a session opens the sign-in page. */
const baseQuery: BaseQueryFn<string | FetchArgs, unknown, FetchBaseQueryError> = async (args, store, extra) => {
  const result = await request(args, store, extra);
  const isSignIn = typeof args !== 'string' && args.url === 'session';
  if (result.error?.status === 401 && !isSignIn) store.dispatch(sessionActions.signedOutChanged(true));
  return result;
};

/** Cached server data. The open document has its own slice. */
export const api = createApi({
  reducerPath: 'server',
  baseQuery,
  tagTypes: ['plans', 'checkpoints', 'sheets', 'session'],
  endpoints: (build) => ({
    catalogue: build.query<{ readonly sheets: readonly (BoardSheet | PartSheet)[]; readonly own: readonly string[] }, void>({
      query: () => 'catalogue',
      providesTags: ['sheets'],
    }),
    keepSheets: build.mutation<{ readonly sheets: readonly KeptSheet[] }, readonly (BoardSheet | PartSheet)[]>({
      query: (sheets) => ({ url: 'sheets', method: 'POST', body: { sheets } }),
      invalidatesTags: ['sheets'],
    }),
    removeSheet: build.mutation<void, string>({
      query: (id) => ({ url: `sheets/${id}`, method: 'DELETE' }),
      invalidatesTags: ['sheets'],
    }),
    sheetSchema: build.query<Shape, 'board' | 'part'>({ query: (kind) => `sheets/schema/${kind}`, keepUnusedDataFor: 3600 }),
    sheetPlans: build.query<{ readonly plans: readonly SheetUse[] }, string>({ query: (id) => `sheets/${id}/plans` }),
    plans: build.query<{ readonly plans: readonly PlanSummary[]; readonly total: number }, void>({
      query: () => 'plans',
      providesTags: ['plans'],
    }),
    createPlan: build.mutation<StoredPlan, { readonly name: string; readonly board: string }>({
      query: (body) => ({ url: 'plans', method: 'POST', body }),
      invalidatesTags: ['plans'],
    }),
    openPlanFile: build.mutation<StoredPlan & { readonly kept: readonly KeptSheet[] }, unknown>({
      query: (body) => ({ url: 'plans/file', method: 'POST', body }),
      invalidatesTags: ['plans', 'sheets'],
    }),
    deletePlan: build.mutation<void, string>({
      query: (id) => ({ url: `plans/${id}`, method: 'DELETE' }),
      invalidatesTags: ['plans'],
    }),
    session: build.query<{ readonly required: boolean }, void>({ query: () => 'session', providesTags: ['session'] }),
    signIn: build.mutation<void, string>({ query: (passphrase) => ({ url: 'session', method: 'POST', body: { passphrase } }) }),
    signOut: build.mutation<void, void>({ query: () => ({ url: 'session', method: 'DELETE' }) }),
    takeArchive: build.mutation<ArchiveReport, Blob>({
      query: (body) => ({ url: 'archive', method: 'POST', body, headers: { 'Content-Type': 'application/zip' } }),
      invalidatesTags: ['plans', 'sheets', 'checkpoints'],
    }),
    history: build.query<{ readonly entries: readonly HistoryEntry[] }, { readonly plan: string; readonly before?: number }>({
      query: ({ plan, before }) => `plans/${plan}/history${before === undefined ? '' : `?before=${before}`}`,
      keepUnusedDataFor: 0,
    }),
    historyStep: build.query<HistoryEntry & { readonly inverse: readonly Edit[] }, { readonly plan: string; readonly revision: number }>({
      query: ({ plan, revision }) => `plans/${plan}/history/${revision}`,
    }),
    checkpoints: build.query<{ readonly checkpoints: readonly Checkpoint[] }, string>({
      query: (plan) => `plans/${plan}/checkpoints`,
      providesTags: ['checkpoints'],
    }),
    checkpoint: build.query<Checkpoint & { readonly plan: Plan }, { readonly plan: string; readonly id: string }>({
      query: ({ plan, id }) => `plans/${plan}/checkpoints/${id}`,
    }),
    keepCheckpoint: build.mutation<Checkpoint, { readonly plan: string; readonly name: string }>({
      query: ({ plan, name }) => ({ url: `plans/${plan}/checkpoints`, method: 'POST', body: { name } }),
      invalidatesTags: ['checkpoints'],
    }),
    // A request of its own each time, never answered by one that is already under way: a plan changes with every edit.
    readPlan: build.mutation<StoredPlan, string>({ query: (id) => `plans/${encodeURIComponent(id)}` }),
    sendBatches: build.mutation<{ readonly revision: number }, SentBatches>({
      query: ({ planId, revision, epoch, body, keepalive }) => ({
        url: `plans/${encodeURIComponent(planId)}/edits`,
        method: 'POST',
        headers: { 'Content-Type': 'application/json', 'If-Match': `"${revision}-${epoch}"` },
        body,
        ...(keepalive ? { keepalive } : {}),
      }),
    }),
    takenBatches: build.mutation<{ readonly taken: readonly string[] }, { readonly planId: string; readonly batches: readonly string[] }>({
      query: ({ planId, batches }) => ({ url: `plans/${encodeURIComponent(planId)}/taken`, method: 'POST', body: { batches } }),
    }),
    restorePlan: build.mutation<void, string>({
      query: (id) => ({ url: `plans/${id}/restore`, method: 'POST' }),
      invalidatesTags: ['plans'],
    }),
  }),
});

export const {
  useSessionQuery,
  useSignInMutation,
  useSignOutMutation,
  useTakeArchiveMutation,
  useHistoryQuery,
  useLazyHistoryQuery,
  useLazyHistoryStepQuery,
  useCheckpointsQuery,
  useLazyCheckpointQuery,
  useKeepCheckpointMutation,
  useCatalogueQuery,
  useKeepSheetsMutation,
  useRemoveSheetMutation,
  useSheetPlansQuery,
  useSheetSchemaQuery,
  useOpenPlanFileMutation,
  usePlansQuery,
  useCreatePlanMutation,
  useDeletePlanMutation,
  useRestorePlanMutation,
} = api;

/** The words of a failed request, or a sentence for a server that does not answer. */
export function failureWords(error: unknown): string {
  const data = (error as { data?: { error?: { message?: string } } } | undefined)?.data;
  return data?.error?.message ?? 'The server is not responding. Nothing was changed.';
}
