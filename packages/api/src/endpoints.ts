import Joi from 'joi';
import { idSchema } from '@roof-chart/core/plan/planSchema';
import { archiveReportSchema } from './archiveReport';
import { catalogueSchema } from './catalogue';
import { checkpointListSchema, checkpointPlanSchema, checkpointSchema, keepCheckpointSchema } from './checkpoints';
import { createPlanSchema } from './createPlan';
import { editAnswerSchema, editRequestSchema, refusedEditsSchema } from './editBatches';
import { historySchema, historyStepSchema } from './history';
import { keepSheetsSchema, keptSheetsSchema } from './keptSheets';
import { openedFileSchema } from './openedFile';
import { planListSchema } from './planList';
import { refusalSchema } from './problem';
import { historyQuerySchema, pageQuerySchema, wholeNumber } from './queries';
import { sessionStateSchema, signInSchema } from './session';
import { sheetUsesSchema } from './sheetUses';
import { stalePlanSchema, storedPlanSchema } from './storedPlan';
import { takenAnswerSchema, takenRequestSchema } from './takenBatches';

/** What the server answers with a status. */
export interface Answer {
  readonly description: string;
  /** Of its JSON body; none where it has no body, or another kind. */
  readonly schema?: Joi.Schema;
  /** The media type of a body that is not JSON. */
  readonly media?: string;
}

/** One method of one address. */
export interface Endpoint {
  readonly summary: string;
  /** The parts of its path, by name. */
  readonly path?: { readonly [name: string]: Joi.Schema };
  readonly query?: Joi.ObjectSchema;
  /** Headers that it needs, by name, with what they are. */
  readonly headers?: { readonly [name: string]: string };
  readonly request?: Joi.Schema;
  /** The media type of a request that is not JSON. */
  readonly media?: string;
  readonly answers: { readonly [status: number]: Answer };
}

const json = (description: string, schema: Joi.Schema): Answer => ({ description, schema });
const refused = (description: string): Answer => json(description, refusalSchema);
const empty = (description: string): Answer => ({ description });
const anyObject = Joi.object().unknown();

const id = { id: idSchema } as const;
const bad = { 400: refused('Malformed, with its place') } as const;
const gone = { 404: refused('No such plan') } as const;
const ZIP = 'application/zip';

/** Every endpoint, by its method and path: what the server routes, what the OpenAPI document says, and what the tests hold every answer
 *  against. */
export const ENDPOINTS: { readonly [route: string]: Endpoint } = {
  'get /api/health': { summary: 'Health check', answers: { 200: json('The server is running', Joi.object({ ok: true })) } },
  'get /api/session': {
    summary: 'Whether a passphrase is required',
    answers: { 200: json('Whether a passphrase is required', sessionStateSchema) },
  },
  'post /api/session': {
    summary: 'Signs in; the response sets a cookie',
    request: signInSchema,
    answers: {
      204: empty('Signed in'),
      ...bad,
      401: refused('Wrong passphrase'),
      429: refused('Too many wrong passphrases; Retry-After states the wait'),
    },
  },
  'delete /api/session': { summary: 'Signs out', answers: { 204: empty('Signed out') } },
  'get /api/archive': {
    summary: 'All plans, saved versions and own sheets as JSON files in one ZIP archive',
    answers: { 200: { description: 'The archive', media: ZIP } },
  },
  'post /api/archive': {
    summary: 'Imports such an archive; identical content is skipped',
    media: ZIP,
    answers: {
      201: json('What was imported and what was skipped, with reasons', archiveReportSchema),
      400: refused('Not a Roof Chart archive'),
      413: refused('Too large'),
      415: refused('Not a ZIP file'),
    },
  },
  'get /api/openapi.json': { summary: 'This document', answers: { 200: json('The document', anyObject) } },
  'get /api/catalogue': { summary: 'Every board and part sheet', answers: { 200: json('Sheets', catalogueSchema) } },
  'post /api/sheets': {
    summary: 'Saves own sheets, all or none, each as the next version of its ID',
    request: keepSheetsSchema,
    answers: {
      201: json('Saved versions', keptSheetsSchema),
      ...bad,
      409: refused('The ID is in use'),
      422: json('Invalid sheet; `faults` lists every place', refusalSchema.unknown()),
    },
  },
  'get /api/sheets/schema/{kind}': {
    summary: 'JSON Schema of the sheets',
    path: { kind: Joi.valid('board', 'part') },
    answers: { 200: json('A JSON Schema, draft 2020-12', anyObject), ...bad },
  },
  'delete /api/sheets/{id}': {
    summary: 'Removes an own sheet that is not used by any plan',
    path: id,
    answers: { 204: empty('Done'), ...bad, 404: refused('No such own sheet'), 409: refused('Plans use it') },
  },
  'get /api/sheets/{id}/plans': {
    summary: 'Plans that use a sheet, with their sheet versions',
    path: id,
    answers: { 200: json('Plans', sheetUsesSchema), ...bad },
  },
  'get /api/plans': {
    summary: 'Plans, last changed first',
    query: pageQuerySchema,
    answers: { 200: json('Summaries', planListSchema), ...bad },
  },
  'post /api/plans': {
    summary: 'A new plan on a board',
    request: createPlanSchema,
    answers: { 201: json('The plan', storedPlanSchema), ...bad, 422: refused('Unknown board') },
  },
  'post /api/plans/file': {
    summary: 'Imports a plan file; enclosed sheets that are not in the library are saved as own sheets',
    request: anyObject.description('A plan document with a list `sheets`'),
    answers: { 201: json('The plan', openedFileSchema), ...bad, 422: refused('The plan contradicts its sheets') },
  },
  'get /api/plans/{id}': {
    summary: 'One plan, its revision in ETag',
    path: id,
    answers: { 200: json('The plan', storedPlanSchema), ...bad, ...gone },
  },
  'delete /api/plans/{id}': {
    summary: 'Deletes a plan; it can be restored',
    path: id,
    answers: { 204: empty('Done'), ...bad, ...gone },
  },
  'post /api/plans/{id}/restore': { summary: 'Restores a deleted plan', path: id, answers: { 204: empty('Done'), ...bad, ...gone } },
  'post /api/plans/{id}/archive': {
    summary: 'Lists a plan after those at work',
    path: id,
    answers: { 204: empty('Done'), ...bad, ...gone },
  },
  'post /api/plans/{id}/unarchive': {
    summary: 'Lists an archived plan among those at work again',
    path: id,
    answers: { 204: empty('Done'), ...bad, ...gone },
  },
  'post /api/plans/{id}/edits': {
    summary: 'Applies batches of edits in order, each whole or not at all',
    path: id,
    headers: { 'If-Match': 'The ETag of the plan that the edits were made on' },
    request: editRequestSchema,
    answers: {
      200: json('The new revision', editAnswerSchema),
      ...bad,
      ...gone,
      409: refused('The ID of a batch is in use for different edits'),
      412: json('The plan has changed; its current state', stalePlanSchema),
      422: json('An edit cannot be applied; the batches before it are saved', refusedEditsSchema),
      428: refused('If-Match is missing'),
    },
  },
  'post /api/plans/{id}/taken': {
    summary: 'Which of these batches are stored',
    path: id,
    request: takenRequestSchema,
    answers: { 200: json('Ids', takenAnswerSchema), ...bad },
  },
  'get /api/plans/{id}/history': {
    summary: 'History, newest first, 100 entries per page',
    path: id,
    query: historyQuerySchema,
    answers: { 200: json('Entries', historySchema), ...bad },
  },
  'get /api/plans/{id}/history/{revision}': {
    summary: 'The edits of one step and their inverse',
    path: { ...id, revision: wholeNumber(9) },
    answers: { 200: json('The step', historyStepSchema), ...bad, 404: refused('No longer in the log') },
  },
  'get /api/plans/{id}/events': {
    summary: 'Server-sent events: the revision and epoch, at once and after every change; `gone` if the plan does not exist',
    path: id,
    answers: { 200: { description: 'Events', media: 'text/event-stream' }, 204: empty('Too many listeners'), ...bad },
  },
  'get /api/plans/{id}/checkpoints': {
    summary: 'Saved versions, newest first',
    path: id,
    answers: { 200: json('Checkpoints', checkpointListSchema), ...bad },
  },
  'post /api/plans/{id}/checkpoints': {
    summary: 'Saves the current plan as a version',
    path: id,
    request: keepCheckpointSchema,
    answers: { 201: json('The checkpoint', checkpointSchema), ...bad, ...gone },
  },
  'get /api/plans/{id}/checkpoints/{checkpoint}': {
    summary: 'One saved version with its plan',
    path: { ...id, checkpoint: idSchema },
    answers: { 200: json('The checkpoint', checkpointPlanSchema), ...bad, 404: refused('No such version') },
  },
};

/** Refusals that any endpoint may answer with. */
export const ANY_ENDPOINT: { readonly [status: number]: Answer } = {
  401: refused('Not signed in'),
  413: refused('The body is too large'),
  415: refused('Another media type, encoding or character set'),
  429: refused('Too many requests; Retry-After states the wait'),
  500: refused('The stored document is damaged, or the server failed; nothing was changed'),
  503: refused('The database is in use by another program; nothing was changed'),
  507: refused('The disk is full; nothing was changed'),
};
