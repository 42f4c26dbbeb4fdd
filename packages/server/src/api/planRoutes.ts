import { Router, type Request } from 'express';
import Joi from 'joi';
import type { Edit } from '@roof-chart/core/plan/edit';
import { editsSchema } from '@roof-chart/core/plan/editSchema';
import { idSchema, nameSchema } from '@roof-chart/core/plan/planSchema';
import type { EditOutcome, PlanStore } from '../store/planStore';
import { readPlanFile } from '@roof-chart/core/plan/planFile';
import { importPlan } from '../store/importPlan';
import type { SheetShelf } from '../store/sheetShelf';
import { ApiError, route, valid } from './apiError';
import { planEvents } from './planEvents';

const listQuery = Joi.object({ limit: Joi.string().pattern(/^\d{1,3}$/), offset: Joi.string().pattern(/^\d{1,6}$/) });
const createBody = Joi.object({ name: nameSchema.required(), board: idSchema.required() }).required();
const editBody = Joi.object({ batch: Joi.string().guid().required(), edits: editsSchema.required() }).required();

const checkpointBody = Joi.object({ name: nameSchema.required() }).required();

const planId = (req: Request): string => valid<string>(idSchema.required(), req.params['id'], 'id');
const gone = (id: string) => new ApiError(404, { code: 'no-such-plan', message: 'There is no such plan.', path: 'id', got: id });
const etag = (revision: number): string => `"${revision}"`;

/** The revision the client saw.
 *  @throws ApiError 428 without If-Match, 400 when it is no revision */
function seenRevision(req: Request): number {
  const header = req.get('If-Match');
  if (!header)
    throw new ApiError(428, {
      code: 'revision-missing',
      message: 'Say which revision this edit was made on.',
      path: 'If-Match',
      expected: 'a quoted revision',
    });
  const match = /^"(\d{1,9})"$/.exec(header);
  if (!match)
    throw new ApiError(400, {
      code: 'invalid',
      message: 'If-Match is not a quoted revision.',
      path: 'If-Match',
      expected: 'a quoted revision',
    });
  return Number(match[1]);
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
          message: 'The plan has changed since this edit was made.',
          path: 'If-Match',
          expected: etag(outcome.now.revision),
        },
        { ...outcome.now },
      );
    case 'refused': {
      const { path, expected, got } = outcome.problem;
      const message = `Edit ${outcome.at + 1} cannot be done: ${path} should be ${expected}, not ${got}.`;
      throw new ApiError(422, { code: 'edit-refused', message, path: `body.edits.${outcome.at}.${path}`, expected, got });
    }
  }
}

/** Plans over HTTP: parse, ask the store, answer. */
export function planRoutes(store: PlanStore, shelf: SheetShelf): Router {
  const router = Router();

  router.get(
    '/',
    route(async (req, res) => {
      const { limit = '100', offset = '0' } = valid<{ limit?: string; offset?: string }>(listQuery, req.query, 'query');
      res.json(await store.list(Math.min(Number(limit), 200), Number(offset)));
    }),
  );

  router.post(
    '/',
    route(async (req, res) => {
      const body = valid<{ name: string; board: string }>(createBody, req.body, 'body');
      const { boards } = shelf.current;
      const board = boards.get(body.board)?.sheet;
      if (!board)
        throw new ApiError(422, {
          code: 'unknown-board',
          message: 'There is no such board sheet.',
          path: 'body.board',
          expected: [...boards.keys()].join(', '),
          got: body.board,
        });
      const made = await store.createEmpty(body.name, { id: board.id, version: board.version });
      res.status(201).location(`/api/plans/${made.plan.id}`).set('ETag', etag(made.revision)).json(made);
    }),
  );

  router.post(
    '/file',
    route(async (req, res) => {
      const read = readPlanFile(req.body);
      if (!read.ok) throw new ApiError(400, { code: 'no-plan-file', message: `This is no plan file: ${read.fault}.`, path: read.path });
      const made = await importPlan(store, shelf, read.file);
      if (!made.ok)
        throw new ApiError(422, {
          code: 'plan-unsound',
          message: `The plan cannot be opened: ${made.fault}. Nothing was kept.`,
          path: made.path,
        });
      res
        .status(201)
        .location(`/api/plans/${made.stored.plan.id}`)
        .set('ETag', etag(made.stored.revision))
        .json({ ...made.stored, kept: made.kept });
    }),
  );

  router.get(
    '/:id',
    route(async (req, res) => {
      const id = planId(req);
      const found = await store.read(id);
      if (!found) throw gone(id);
      res.set('ETag', etag(found.revision)).json(found);
    }),
  );

  router.post(
    '/:id/edits',
    route(async (req, res) => {
      const id = planId(req);
      const revision = seenRevision(req);
      const body = valid<{ batch: string; edits: Edit[] }>(editBody, req.body, 'body');
      const next = answer(id, await store.edit(id, revision, body.batch, body.edits));
      res.set('ETag', etag(next)).json({ revision: next });
    }),
  );

  router.delete(
    '/:id',
    route(async (req, res) => {
      const id = planId(req);
      if (!(await store.remove(id))) throw gone(id);
      res.status(204).end();
    }),
  );

  router.post(
    '/:id/restore',
    route(async (req, res) => {
      const id = planId(req);
      if (!(await store.restore(id))) throw gone(id);
      res.status(204).end();
    }),
  );

  router.get('/:id/events', planEvents(store));

  router.get(
    '/:id/checkpoints',
    route(async (req, res) => {
      res.json({ checkpoints: await store.checkpoints(planId(req)) });
    }),
  );

  router.post(
    '/:id/checkpoints',
    route(async (req, res) => {
      const id = planId(req);
      const { name } = valid<{ name: string }>(checkpointBody, req.body, 'body');
      const kept = await store.keep(id, name);
      if (!kept) throw gone(id);
      res.status(201).json(kept);
    }),
  );

  router.get(
    '/:id/checkpoints/:checkpoint',
    route(async (req, res) => {
      const id = planId(req);
      const checkpoint = valid<string>(idSchema.required(), req.params['checkpoint'], 'checkpoint');
      const found = await store.checkpoint(id, checkpoint);
      if (!found)
        throw new ApiError(404, {
          code: 'no-such-checkpoint',
          message: 'There is no such checkpoint.',
          path: 'checkpoint',
          got: checkpoint,
        });
      res.json(found);
    }),
  );

  return router;
}
