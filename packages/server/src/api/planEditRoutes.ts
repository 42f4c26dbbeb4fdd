import { atOrThrow } from '@roof-chart/core/collections/orThrow';
import { type Request, Router } from 'express';
import { type EditAnswer, type EditRequest, editRequestSchema } from '@roof-chart/api/editBatches';
import { type TakenRequest, takenRequestSchema } from '@roof-chart/api/takenBatches';
import { upgradeEdits } from '@roof-chart/core/plan/upgradePlan';
import type { SeenRevision } from '../store/editBatches';
import type { EditOutcome, PlanStore } from '../store/planStore';
import { ApiError, route, valid } from './apiError';
import { etag, gone, planId } from './planAddress';

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
  return { revision: Number(match[1]), epoch: atOrThrow(match, 2) };
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

/** A request of a page that is older than the server, with today's names of edits.
 *  @param body of any shape */
function withTodaysEdits(body: unknown): unknown {
  const { batches } = (body ?? {}) as { readonly batches?: unknown };
  if (!Array.isArray(batches)) return body;
  const today = (batch: unknown): unknown => {
    const { edits } = (batch ?? {}) as { readonly edits?: unknown };
    const upgraded = upgradeEdits(edits);
    return upgraded === edits ? batch : { ...(batch as object), edits: upgraded };
  };
  return { ...(body as object), batches: batches.map(today) };
}

/** Batches of edits, and which of them the server has. */
export function planEditRoutes(store: PlanStore): Router {
  const router = Router();

  router.post(
    '/:id/edits',
    route((req, res) => {
      const id = planId(req);
      const revision = seenRevision(req);
      const body = valid<EditRequest>(editRequestSchema.required(), withTodaysEdits(req.body), 'body');
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

  return router;
}
