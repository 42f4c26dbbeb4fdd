import { components } from './openapiSchemas';

/** The HTTP interface as an OpenAPI 3.1 document. A test holds it against the routes. */

const problem = (description: string) => ({
  description,
  content: { 'application/json': { schema: { $ref: '#/components/schemas/Problem' } } },
});
const json = (description: string, schema: object) => ({ description, content: { 'application/json': { schema } } });
const body = (schema: object) => ({ required: true, content: { 'application/json': { schema } } });
const ref = (name: string) => ({ $ref: `#/components/schemas/${name}` });
const list = (name: string, of: string) => ({
  type: 'object',
  required: [name],
  properties: { [name]: { type: 'array', items: ref(of) } },
});
const path = (name: string) => ({ name, in: 'path', required: true, schema: { type: 'string', pattern: '^[a-z0-9][a-z0-9-]{0,63}$' } });
const number = (name: string) => ({ name, in: 'query', schema: { type: 'integer', minimum: 0 } });
const gone = { 404: problem('No such plan') };
const bad = { 400: problem('Malformed, with its place') };

const name = { type: 'string', minLength: 1, maxLength: 120 };

export const OPENAPI = {
  openapi: '3.1.0',
  info: {
    title: 'Roof Chart',
    version: '0.1.0',
    description:
      'Plans, their edits and versions. JSON in UTF-8; body limit 1 MB, 4 MB for edits, 8 MB for a plan file. If a passphrase is set, sign in at /api/session or send the token as `Authorization: Bearer`.',
  },
  paths: {
    '/api/health': { get: { summary: 'Health check', responses: { 200: json('The server is running', { type: 'object' }) } } },
    '/api/session': {
      get: {
        summary: 'Whether a passphrase is required',
        responses: {
          200: json('Required, and whether signed in', {
            type: 'object',
            required: ['required'],
            properties: { required: { type: 'boolean' } },
          }),
        },
      },
      post: {
        summary: 'Signs in; the response sets a cookie',
        requestBody: body({
          type: 'object',
          required: ['passphrase'],
          properties: { passphrase: { type: 'string', minLength: 1, maxLength: 1000 } },
          additionalProperties: false,
        }),
        responses: {
          204: { description: 'Signed in' },
          401: problem('Wrong passphrase'),
          429: problem('Too many wrong passphrases; Retry-After states the wait'),
        },
      },
      delete: { summary: 'Signs out', responses: { 204: { description: 'Signed out' } } },
    },
    '/api/archive': {
      get: {
        summary: 'All plans, saved versions and own sheets as JSON files in one ZIP archive',
        responses: { 200: { description: 'The archive', content: { 'application/zip': {} } } },
      },
      post: {
        summary: 'Imports such an archive; identical content is skipped',
        requestBody: { required: true, content: { 'application/zip': {} } },
        responses: {
          201: json('What was imported and what was skipped, with reasons', {
            type: 'object',
            required: ['plans', 'versions', 'sheets', 'same', 'skipped'],
            properties: {
              plans: { type: 'integer' },
              versions: { type: 'integer' },
              sheets: { type: 'integer' },
              same: { type: 'integer' },
              skipped: {
                type: 'array',
                items: {
                  type: 'object',
                  required: ['path', 'fault'],
                  properties: { path: { type: 'string' }, fault: { type: 'string' } },
                },
              },
            },
          }),
          400: problem('Not a Roof Chart archive'),
        },
      },
    },
    '/api/openapi.json': { get: { summary: 'This document', responses: { 200: json('The document', { type: 'object' }) } } },
    '/api/catalogue': {
      get: {
        summary: 'Every board and part sheet',
        responses: {
          200: json('Sheets', {
            type: 'object',
            required: ['sheets'],
            properties: {
              sheets: { type: 'array', items: ref('Sheet'), description: 'Every version of every sheet' },
              own: { type: 'array', items: { type: 'string' }, description: 'IDs of the user’s own sheets' },
            },
          }),
        },
      },
    },
    '/api/sheets': {
      post: {
        summary: 'Saves own sheets, all or none, each as the next version of its ID',
        requestBody: body({
          type: 'object',
          required: ['sheets'],
          properties: { sheets: { type: 'array', minItems: 1, maxItems: 50, items: ref('Sheet') } },
          additionalProperties: false,
        }),
        responses: {
          201: json('Saved versions', {
            type: 'object',
            required: ['sheets'],
            properties: {
              sheets: {
                type: 'array',
                items: {
                  type: 'object',
                  required: ['id', 'version', 'how'],
                  properties: { id: { type: 'string' }, version: { type: 'integer' }, how: { enum: ['new', 'changed', 'same'] } },
                },
              },
            },
          }),
          ...bad,
          409: problem('The ID is in use'),
          422: problem('Invalid sheet; `faults` lists every place'),
        },
      },
    },
    '/api/sheets/schema/{kind}': {
      get: {
        summary: 'JSON Schema of the sheets',
        parameters: [{ name: 'kind', in: 'path', required: true, schema: { type: 'string', enum: ['board', 'part'] } }],
        responses: { 200: json('A JSON Schema, draft 2020-12', { type: 'object' }), ...bad },
      },
    },
    '/api/sheets/{id}': {
      delete: {
        summary: 'Removes an own sheet that is not used by any plan',
        parameters: [path('id')],
        responses: { 204: { description: 'Done' }, 404: problem('No such own sheet'), 409: problem('Plans use it') },
      },
    },
    '/api/sheets/{id}/plans': {
      get: {
        summary: 'Plans that use a sheet, with their sheet versions',
        parameters: [path('id')],
        responses: {
          200: json('Plans', {
            type: 'object',
            required: ['plans'],
            properties: {
              plans: {
                type: 'array',
                items: {
                  type: 'object',
                  required: ['plan', 'name', 'versions', 'where'],
                  properties: {
                    where: { enum: ['plan', 'deleted plan', 'saved version'] },
                    plan: { type: 'string' },
                    name: { type: 'string' },
                    versions: { type: 'array', items: { type: 'integer' } },
                  },
                },
              },
            },
          }),
        },
      },
    },
    '/api/plans': {
      get: {
        summary: 'Plans, last changed first',
        parameters: [number('limit'), number('offset')],
        responses: { 200: json('Summaries', { ...list('plans', 'PlanSummary') }), ...bad },
      },
      post: {
        summary: 'A new plan on a board',
        requestBody: body({
          type: 'object',
          required: ['name', 'board'],
          properties: { name, board: { type: 'string' } },
          additionalProperties: false,
        }),
        responses: { 201: json('The plan', ref('StoredPlan')), ...bad, 422: problem('Unknown board') },
      },
    },
    '/api/plans/file': {
      post: {
        summary: 'Imports a plan file; enclosed sheets that are not in the library are saved as own sheets',
        requestBody: body({ type: 'object', description: 'A plan document with a list `sheets`' }),
        responses: { 201: json('The plan', ref('StoredPlan')), ...bad, 422: problem('The plan contradicts its sheets') },
      },
    },
    '/api/plans/{id}': {
      get: {
        summary: 'One plan, its revision in ETag',
        parameters: [path('id')],
        responses: { 200: json('The plan', ref('StoredPlan')), ...gone },
      },
      delete: {
        summary: 'Deletes a plan; it can be restored',
        parameters: [path('id')],
        responses: { 204: { description: 'Done' }, ...gone },
      },
    },
    '/api/plans/{id}/restore': {
      post: { summary: 'Restores a deleted plan', parameters: [path('id')], responses: { 204: { description: 'Done' }, ...gone } },
    },
    '/api/plans/{id}/edits': {
      post: {
        summary: 'Applies batches of edits in order, each whole or not at all',
        parameters: [
          path('id'),
          {
            name: 'If-Match',
            in: 'header',
            required: true,
            schema: { type: 'string' },
            description: 'The ETag of the plan that the edits were made on',
          },
        ],
        requestBody: body({
          type: 'object',
          required: ['batches'],
          properties: {
            batches: { type: 'array', items: ref('Batch'), minItems: 1, maxItems: 500 },
            client: {
              type: 'object',
              required: ['device', 'tab'],
              properties: { device: name, tab: { type: 'string' } },
              additionalProperties: false,
              description: 'Browser and tab that sent the edits, for the history',
            },
          },
          additionalProperties: false,
        }),
        responses: {
          200: json('The new revision', { type: 'object', required: ['revision'], properties: { revision: { type: 'integer' } } }),
          ...bad,
          ...gone,
          409: problem('The ID of a batch is in use for different edits'),
          412: json('The plan has changed; its current state', { allOf: [ref('Problem'), ref('StoredPlan')] }),
          422: json('An edit cannot be applied; the batches before it are saved', {
            allOf: [
              ref('Problem'),
              { type: 'object', required: ['done', 'revision'], properties: { done: { type: 'integer' }, revision: { type: 'integer' } } },
            ],
          }),
          428: problem('If-Match is missing'),
          507: problem('The disk is full; nothing was changed'),
        },
      },
    },
    '/api/plans/{id}/taken': {
      post: {
        summary: 'Which of these batches are stored',
        parameters: [path('id')],
        requestBody: body({
          type: 'object',
          required: ['batches'],
          properties: { batches: { type: 'array', maxItems: 5000, items: { type: 'string', format: 'uuid' } } },
          additionalProperties: false,
        }),
        responses: {
          200: json('Ids', { type: 'object', required: ['taken'], properties: { taken: { type: 'array', items: { type: 'string' } } } }),
          ...bad,
        },
      },
    },
    '/api/plans/{id}/history': {
      get: {
        summary: 'History, newest first, 100 entries per page',
        parameters: [path('id'), number('before')],
        responses: { 200: json('Entries', list('entries', 'HistoryEntry')), ...bad },
      },
    },
    '/api/plans/{id}/history/{revision}': {
      get: {
        summary: 'The edits of one step and their inverse',
        parameters: [path('id'), { name: 'revision', in: 'path', required: true, schema: { type: 'integer' } }],
        responses: { 200: json('The step', ref('HistoryEntry')), ...bad, 404: problem('No longer in the log') },
      },
    },
    '/api/plans/{id}/events': {
      get: {
        summary: 'Server-sent events: the revision and epoch, at once and after every change; `gone` if the plan does not exist',
        parameters: [path('id')],
        responses: {
          200: { description: 'Events', content: { 'text/event-stream': {} } },
          204: { description: 'Too many listeners' },
        },
      },
    },
    '/api/plans/{id}/checkpoints': {
      get: {
        summary: 'Saved versions, newest first',
        parameters: [path('id')],
        responses: { 200: json('Checkpoints', list('checkpoints', 'Checkpoint')) },
      },
      post: {
        summary: 'Saves the current plan as a version',
        parameters: [path('id')],
        requestBody: body({ type: 'object', required: ['name'], properties: { name }, additionalProperties: false }),
        responses: { 201: json('The checkpoint', ref('Checkpoint')), ...bad, ...gone },
      },
    },
    '/api/plans/{id}/checkpoints/{checkpoint}': {
      get: {
        summary: 'One saved version with its plan',
        parameters: [path('id'), path('checkpoint')],
        responses: { 200: json('The checkpoint', ref('Checkpoint')), 404: problem('No such version') },
      },
    },
  },
  components: { schemas: components },
} as const;
