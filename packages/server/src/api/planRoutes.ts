import { Router } from 'express';
import { type CreatePlan, createPlanSchema } from '@roof-chart/api/createPlan';
import type { OpenedFile } from '@roof-chart/api/openedFile';
import { type PageQuery, pageQuerySchema } from '@roof-chart/api/queries';
import type { PlanStore } from '../store/planStore';
import { readPlanFile } from '@roof-chart/core/plan/planFile';
import { importPlan } from '../store/importPlan';
import type { SheetRepository } from '../store/sheetRepository';
import { ApiError, route, valid } from './apiError';
import { etag, gone, planId } from './planAddress';
import { planEditRoutes } from './planEditRoutes';
import { planEvents } from './planEvents';
import { checkpointRoutes, planHistoryRoutes } from './planHistoryRoutes';

/** The list of plans, and plans that are new or come from a file. */
function planListRoutes(store: PlanStore, shelf: SheetRepository): Router {
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

  return router;
}

/** One plan: read, removed, restored, archived. */
function onePlanRoutes(store: PlanStore): Router {
  const router = Router();

  router.get(
    '/:id',
    route((req, res) => {
      const id = planId(req);
      const found = store.read(id);
      if (!found) throw gone(id);
      res.set('ETag', etag(found)).json(found);
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

  return router;
}

/** Plans over HTTP: parse, ask the store, answer. */
export function planRoutes(store: PlanStore, shelf: SheetRepository): Router {
  const router = Router();
  router.get('/:id/events', planEvents(store));
  router.use(planListRoutes(store, shelf), onePlanRoutes(store), planEditRoutes(store), planHistoryRoutes(store), checkpointRoutes(store));
  return router;
}
