/** The shapes that the OpenAPI document names. */
export const components = {
  Problem: {
    type: 'object',
    required: ['error'],
    properties: {
      error: {
        type: 'object',
        required: ['code', 'message'],
        properties: {
          code: { type: 'string' },
          message: { type: 'string' },
          path: { type: 'string' },
          expected: { type: 'string' },
          got: { type: 'string' },
        },
      },
    },
  },
  Sheet: { type: 'object', description: 'A board or part sheet; its schema is published with the sheets.' },
  Plan: { type: 'object', description: 'The plan document; its schema is that of a plan file.' },
  StoredPlan: {
    type: 'object',
    required: ['plan', 'revision', 'epoch', 'recent'],
    properties: {
      plan: { $ref: '#/components/schemas/Plan' },
      revision: { type: 'integer' },
      epoch: { type: 'string', description: 'Epoch of the database: changes when a backup is restored' },
      recent: { type: 'array', items: { type: 'string' }, description: 'IDs of the latest batches, newest first' },
    },
  },
  PlanSummary: {
    type: 'object',
    required: ['id', 'name', 'board', 'parts', 'revision', 'updatedAt'],
    properties: {
      id: { type: 'string' },
      name: { type: 'string' },
      board: { type: 'string' },
      parts: { type: 'integer' },
      revision: { type: 'integer' },
      updatedAt: { type: 'string', format: 'date-time' },
      thumbnail: { type: 'object' },
    },
  },
  Edit: {
    type: 'object',
    required: ['kind'],
    properties: { kind: { type: 'string' } },
    description: 'One edit; its fields depend on its kind.',
  },
  Batch: {
    type: 'object',
    required: ['batch', 'edits'],
    properties: {
      batch: { type: 'string', format: 'uuid', description: 'Chosen by the client; a batch sent twice is applied once' },
      edits: { type: 'array', items: { $ref: '#/components/schemas/Edit' }, minItems: 1, maxItems: 5000 },
      label: { type: 'string', maxLength: 300, description: 'What the user did' },
    },
    additionalProperties: false,
  },
  HistoryEntry: {
    type: 'object',
    required: ['revision', 'at', 'label', 'device', 'tab', 'kept'],
    properties: {
      revision: { type: 'integer' },
      at: { type: 'string', format: 'date-time' },
      label: { type: ['string', 'null'] },
      device: { type: ['string', 'null'] },
      tab: { type: ['string', 'null'] },
      kept: { type: 'boolean', description: 'Whether its edits are still in the log' },
    },
  },
  Checkpoint: {
    type: 'object',
    required: ['id', 'name', 'revision', 'at'],
    properties: {
      id: { type: 'string' },
      name: { type: 'string' },
      revision: { type: 'integer' },
      at: { type: 'string', format: 'date-time' },
    },
  },
} as const;
