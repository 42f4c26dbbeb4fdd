import type { Shape } from './sheetShape';
import {
  type BaseQueryFn,
  createApi,
  type EndpointBuilder,
  type FetchArgs,
  fetchBaseQuery,
  type FetchBaseQueryError,
} from '@reduxjs/toolkit/query/react';
import type { ArchiveReport } from '@roof-chart/api/archiveReport';
import type { Catalogue } from '@roof-chart/api/catalogue';
import { upgradeSheet } from '@roof-chart/core/sheets/upgradeSheet';
import type { Checkpoint, CheckpointList, CheckpointPlan } from '@roof-chart/api/checkpoints';
import type { CreatePlan } from '@roof-chart/api/createPlan';
import type { EditAnswer } from '@roof-chart/api/editBatches';
import type { History, HistoryStep } from '@roof-chart/api/history';
import type { KeptSheets } from '@roof-chart/api/keptSheets';
import type { OpenedFile } from '@roof-chart/api/openedFile';
import type { PlanList } from '@roof-chart/api/planList';
import type { Refusal } from '@roof-chart/api/problem';
import type { SessionState } from '@roof-chart/api/session';
import type { SheetUses } from '@roof-chart/api/sheetUses';
import type { StoredPlan } from '@roof-chart/api/storedPlan';
import type { TakenAnswer, TakenRequest } from '@roof-chart/api/takenBatches';
import type { BoardSheet } from '@roof-chart/core/sheets/boardSheet';
import type { PartSheet } from '@roof-chart/core/sheets/partSheet';
import { sessionActions } from './sessionSlice';

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

const request = fetchBaseQuery({ baseUrl: '/api' });

/** Every request; one refused without a session opens the sign-in page. */
const baseQuery: BaseQueryFn<string | FetchArgs, unknown, FetchBaseQueryError> = async (args, store, extra) => {
  const result = await request(args, store, extra);
  const isSignIn = typeof args !== 'string' && args.url === 'session';
  if (result.error?.status === 401 && !isSignIn) store.dispatch(sessionActions.signedOutChanged(true));
  return result;
};

const TAGS = ['plans', 'checkpoints', 'sheets', 'session'] as const;
type Build = EndpointBuilder<typeof baseQuery, (typeof TAGS)[number], 'server'>;

const planEndpoints = (build: Build) => ({
  plans: build.query<PlanList, void>({
    query: () => 'plans',
    providesTags: ['plans'],
  }),
  createPlan: build.mutation<StoredPlan, CreatePlan>({
    query: (body) => ({ url: 'plans', method: 'POST', body }),
    invalidatesTags: ['plans'],
  }),
  openPlanFile: build.mutation<OpenedFile, unknown>({
    query: (body) => ({ url: 'plans/file', method: 'POST', body }),
    invalidatesTags: ['plans', 'sheets'],
  }),
  deletePlan: build.mutation<void, string>({
    query: (id) => ({ url: `plans/${id}`, method: 'DELETE' }),
    invalidatesTags: ['plans'],
  }),
  takeArchive: build.mutation<ArchiveReport, Blob>({
    query: (body) => ({ url: 'archive', method: 'POST', body, headers: { 'Content-Type': 'application/zip' } }),
    invalidatesTags: ['plans', 'sheets', 'checkpoints'],
  }),
  archivePlan: build.mutation<void, { readonly id: string; readonly archived: boolean }>({
    query: ({ id, archived }) => ({ url: `plans/${id}/${archived ? 'archive' : 'unarchive'}`, method: 'POST' }),
    invalidatesTags: ['plans'],
  }),
  restorePlan: build.mutation<void, string>({
    query: (id) => ({ url: `plans/${id}/restore`, method: 'POST' }),
    invalidatesTags: ['plans'],
  }),
});

/** The edits of the open plan, on their way to the server. */
const batchEndpoints = (build: Build) => ({
  // A request of its own each time, never answered by one that is already under way: a plan changes with every edit.
  readPlan: build.mutation<StoredPlan, string>({ query: (id) => `plans/${encodeURIComponent(id)}` }),
  sendBatches: build.mutation<EditAnswer, SentBatches>({
    query: ({ planId, revision, epoch, body, keepalive }) => ({
      url: `plans/${encodeURIComponent(planId)}/edits`,
      method: 'POST',
      headers: { 'Content-Type': 'application/json', 'If-Match': `"${revision}-${epoch}"` },
      body,
      ...(keepalive ? { keepalive } : {}),
    }),
  }),
  takenBatches: build.mutation<TakenAnswer, TakenRequest & { readonly planId: string }>({
    query: ({ planId, batches }) => ({ url: `plans/${encodeURIComponent(planId)}/taken`, method: 'POST', body: { batches } }),
  }),
});

const historyEndpoints = (build: Build) => ({
  history: build.query<History, { readonly plan: string; readonly before?: number }>({
    query: ({ plan, before }) => `plans/${plan}/history${before === undefined ? '' : `?before=${before}`}`,
    keepUnusedDataFor: 0,
  }),
  historyStep: build.query<HistoryStep, { readonly plan: string; readonly revision: number }>({
    query: ({ plan, revision }) => `plans/${plan}/history/${revision}`,
  }),
  checkpoints: build.query<CheckpointList, string>({
    query: (plan) => `plans/${plan}/checkpoints`,
    providesTags: ['checkpoints'],
  }),
  checkpoint: build.query<CheckpointPlan, { readonly plan: string; readonly id: string }>({
    query: ({ plan, id }) => `plans/${plan}/checkpoints/${id}`,
  }),
  keepCheckpoint: build.mutation<Checkpoint, { readonly plan: string; readonly name: string }>({
    query: ({ plan, name }) => ({ url: `plans/${plan}/checkpoints`, method: 'POST', body: { name } }),
    invalidatesTags: ['checkpoints'],
  }),
});

const sheetEndpoints = (build: Build) => ({
  catalogue: build.query<Catalogue, void>({
    query: () => 'catalogue',
    // Some hundred thousand values that never change: neither compared with the last ones nor frozen one by one.
    structuralSharing: false,
    // Without the server it may be what an earlier version kept.
    transformResponse: (answer: Catalogue) => Object.freeze({ ...answer, sheets: answer.sheets.map(upgradeSheet) as Catalogue['sheets'] }),
    providesTags: ['sheets'],
  }),
  keepSheets: build.mutation<KeptSheets, readonly (BoardSheet | PartSheet)[]>({
    query: (sheets) => ({ url: 'sheets', method: 'POST', body: { sheets } }),
    invalidatesTags: ['sheets'],
  }),
  removeSheet: build.mutation<void, string>({
    query: (id) => ({ url: `sheets/${id}`, method: 'DELETE' }),
    invalidatesTags: ['sheets'],
  }),
  sheetSchema: build.query<Shape, 'board' | 'part'>({ query: (kind) => `sheets/schema/${kind}`, keepUnusedDataFor: 3600 }),
  sheetPlans: build.query<SheetUses, string>({ query: (id) => `sheets/${id}/plans` }),
});

const sessionEndpoints = (build: Build) => ({
  session: build.query<SessionState, void>({ query: () => 'session', providesTags: ['session'] }),
  signIn: build.mutation<void, string>({ query: (passphrase) => ({ url: 'session', method: 'POST', body: { passphrase } }) }),
  signOut: build.mutation<void, void>({ query: () => ({ url: 'session', method: 'DELETE' }) }),
});

/** Cached server data. The open document has its own slice. */
export const api = createApi({
  reducerPath: 'server',
  baseQuery,
  tagTypes: TAGS,
  endpoints: (build) => ({
    ...planEndpoints(build),
    ...batchEndpoints(build),
    ...historyEndpoints(build),
    ...sheetEndpoints(build),
    ...sessionEndpoints(build),
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
  useArchivePlanMutation,
  useDeletePlanMutation,
  useReadPlanMutation,
  useRestorePlanMutation,
} = api;

/** The words of a failed request, or a sentence for a server that does not answer. */
export function failureWords(error: unknown): string {
  const data = (error as { data?: Partial<Refusal> } | undefined)?.data;
  return data?.error?.message ?? 'The server is not responding. Nothing was changed.';
}
