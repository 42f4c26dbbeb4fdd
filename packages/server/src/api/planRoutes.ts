import { Router, type Request } from 'express';
import { keepCheckpointSchema, type KeepCheckpoint } from '@roof-chart/api/checkpoints';
import { type CreatePlan, createPlanSchema } from '@roof-chart/api/createPlan';
import { type EditAnswer, type EditRequest, editRequestSchema } from '@roof-chart/api/editBatches';
import type { OpenedFile } from '@roof-chart/api/openedFile';
import { type HistoryQuery, historyQuerySchema, type PageQuery, pageQuerySchema, wholeNumber } from '@roof-chart/api/queries';
import { type TakenRequest, takenRequestSchema } from '@roof-chart/api/takenBatches';
import { idSchema } from '@roof-chart/core/plan/planSchema';
import type { SeenRevision } from '../store/editBatches';
import { historyOf, historyStep } from '../store/planLog';
import type { EditOutcome, PlanStore } from '../store/planStore';
import { readPlanFile } from '@roof-chart/core/plan/planFile';
import { importPlan } from '../store/importPlan';
import type { SheetRepository } from '../store/sheetRepository';
import { ApiError, route, valid } from './apiError';
import { planEvents } from './planEvents';

const revisionParameter = wholeNumber(9).required();

const planId = (req: Request): string => valid<string>(idSchema.required(), req.params['id'], 'id');
const gone = (id: string) => new ApiError(404, { code: 'no-such-plan', message: 'No such plan.', path: 'id', got: id });

/** A revision as an entity tag: it names the life of the database, too, so that one before a restore never matches. */
const etag = ({ revision, epoch }: SeenRevision): string => `"${revision}-${epoch}"`;

/** The revision the client saw.
 *  @throws ApiError 428 without If-Match, 400 when it is no revision */
function seenRevision(req: Request): SeenRevision {
  const header = req.get('If-Match');
  if (!header)
    throw new ApiError(428, {
      code: 'revision-missing',
      message: 'If-Match is required: the revision that the edit was made on.',
      path: 'If-Match',
      expected: 'the ETag of the plan',
    });
  const match = /^"(\d{1,9})-([0-9a-f]{16})"$/.exec(header);
  if (!match)
    throw new ApiError(400, {
      code: 'invalid',
      message: 'If-Match is not the ETag of a plan.',
      path: 'If-Match',
      expected: 'the ETag of the plan',
    });
  return { revision: Number(match[1]), epoch: match[2]! };
}

function answer(id: string, outcome: EditOutcome): number {
  switch (outcome.kind) {
    case 'done':
      return outcome.revision;
    case 'gone':
      throw gone(id);
    case 'stale':
      throw new ApiError(
        412,
        {
          code: 'stale-revision',
          message: 'The plan has changed since the edit was made.',
          path: 'If-Match',
          expected: etag(outcome.now),
        },
        { ...outcome.now },
      );
    case 'clash':
      throw new ApiError(409, {
        code: 'batch-clash',
        message: 'A batch with this ID but different edits is already stored. Nothing was changed.',
        path: `body.batches.${outcome.at}.batch`,
      });
    case 'refused': {
      const { edit, problem } = outcome.problem;
      const { path, expected, got } = problem;
      const message = `Edit ${edit + 1} cannot be applied: ${path} must be ${expected}, not ${got}.`;
      const place = `body.batches.${outcome.at}.edits.${edit}.${path}`;
      // The batches before it are done: the client must not send them again as if they were not.
      const done = { done: outcome.at, revision: outcome.revision };
      throw new ApiError(422, { code: 'edit-refused', message, path: place, expected, got }, done);
    }
  }
}

/** Plans over HTTP: parse, ask the store, answer. */
export function planRoutes(store: PlanStore, shelf: SheetRepository): Router {
  const router = Router();

  router.get(
    '/',
    route(async (req, res) => {
      const { limit = '100', offset = '0' } = valid<PageQuery>(pageQuerySchema, req.query, 'query');
      res.json(await store.list(Math.min(Number(limit), 200), Number(offset)));
    }),
  );

  router.post(
    '/',
    route((req, res) => {
      const body = valid<CreatePlan>(createPlanSchema.required(), req.body, 'body');
      const { boards } = shelf.current;
      const board = boards.get(body.board)?.sheet;
      if (!board)
        throw new ApiError(422, {
          code: 'unknown-board',
          message: 'No such board sheet.',
          path: 'body.board',
          expected: [...boards.keys()].join(', '),
          got: body.board,
        });
      const made = store.createEmpty(body.name, { id: board.id, version: board.version });
      res.status(201).location(`/api/plans/${made.plan.id}`).set('ETag', etag(made)).json(made);
    }),
  );

  router.post(
    '/file',
    route((req, res) => {
      const read = readPlanFile(req.body);
      if (!read.ok)
        throw new ApiError(400, { code: 'no-plan-file', message: `Not a plan file: ${read.path}: ${read.fault}.`, path: read.path });
      const made = importPlan(store, shelf, read.file);
      if (!made.ok)
        throw new ApiError(422, {
          code: 'plan-unsound',
          message: `The plan cannot be opened: ${made.fault}. Nothing was saved.`,
          path: made.path,
        });
      res
        .status(201)
        .location(`/api/plans/${made.stored.plan.id}`)
        .set('ETag', etag(made.stored))
        .json({ ...made.stored, kept: made.kept } satisfies OpenedFile);
    }),
  );

  router.get(
    '/:id',
    route((req, res) => {
      const id = planId(req);
      const found = store.read(id);
      if (!found) throw gone(id);
      res.set('ETag', etag(found)).json(found);
    }),
  );

  router.post(
    '/:id/edits',
    route((req, res) => {
      const id = planId(req);
      const revision = seenRevision(req);
      const body = valid<EditRequest>(editRequestSchema.required(), req.body, 'body');
      const next = answer(id, store.edit(id, revision, body.batches, body.client));
      res.set('ETag', etag({ revision: next, epoch: store.epoch })).json({ revision: next } satisfies EditAnswer);
    }),
  );

  router.post(
    '/:id/taken',
    route((req, res) => {
      const id = planId(req);
      const { batches } = valid<TakenRequest>(takenRequestSchema.required(), req.body, 'body');
      res.json({ taken: store.taken(id, batches) });
    }),
  );

  router.get(
    '/:id/history',
    route((req, res) => {
      const id = planId(req);
      const { before } = valid<HistoryQuery>(historyQuerySchema, req.query, 'query');
      res.json({ entries: historyOf(store.transactions.statements, id, before === undefined ? undefined : Number(before)) });
    }),
  );

  router.get(
    '/:id/history/:revision',
    route((req, res) => {
      const id = planId(req);
      const revision = Number(valid<string>(revisionParameter, req.params['revision'], 'revision'));
      const step = historyStep(store.transactions.statements, id, revision);
      if (!step)
        throw new ApiError(404, {
          code: 'no-such-step',
          message: 'The edits of this step are no longer in the log.',
          path: 'revision',
          got: String(revision),
        });
      res.json(step);
    }),
  );

  router.delete(
    '/:id',
    route((req, res) => {
      const id = planId(req);
      if (!store.remove(id)) throw gone(id);
      res.status(204).end();
    }),
  );

  router.post(
    '/:id/restore',
    route((req, res) => {
      const id = planId(req);
      if (!store.restore(id)) throw gone(id);
      res.status(204).end();
    }),
  );

  for (const [path, isArchived] of [
    ['/:id/archive', true],
    ['/:id/unarchive', false],
  ] as const)
    router.post(
      path,
      route((req, res) => {
        const id = planId(req);
        if (!store.archive(id, isArchived)) throw gone(id);
        res.status(204).end();
      }),
    );

  router.get('/:id/events', planEvents(store));

  router.get(
    '/:id/checkpoints',
    route((req, res) => {
      res.json({ checkpoints: store.checkpoints(planId(req)) });
    }),
  );

  router.post(
    '/:id/checkpoints',
    route((req, res) => {
      const id = planId(req);
      const { name } = valid<KeepCheckpoint>(keepCheckpointSchema.required(), req.body, 'body');
      const kept = store.keep(id, name);
      if (!kept) throw gone(id);
      res.status(201).json(kept);
    }),
  );

  router.get(
    '/:id/checkpoints/:checkpoint',
    route((req, res) => {
      const id = planId(req);
      const checkpoint = valid<string>(idSchema.required(), req.params['checkpoint'], 'checkpoint');
      const found = store.checkpoint(id, checkpoint);
      if (!found)
        throw new ApiError(404, {
          code: 'no-such-checkpoint',
          message: 'No such version.',
          path: 'checkpoint',
          got: checkpoint,
        });
      res.json(found);
    }),
  );

  return router;
}
