import { Router } from 'express';
import { keepCheckpointSchema, type KeepCheckpoint } from '@roof-chart/api/checkpoints';
import { type HistoryQuery, historyQuerySchema, wholeNumber } from '@roof-chart/api/queries';
import { idSchema } from '@roof-chart/core/plan/planSchema';
import { historyOf, historyStep } from '../store/planLog';
import type { PlanStore } from '../store/planStore';
import { ApiError, route, valid } from './apiError';
import { gone, planId } from './planAddress';

const revisionParameter = wholeNumber(9).required();

/** What was done to a plan, step by step. */
export function planHistoryRoutes(store: PlanStore): Router {
  const router = Router();

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

  return router;
}

/** The named versions of a plan. */
export function checkpointRoutes(store: PlanStore): Router {
  const router = Router();

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
