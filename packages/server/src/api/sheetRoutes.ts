import { Router, type Request } from 'express';
import Joi from 'joi';
import { type KeepSheets, keepSheetsSchema } from '@roof-chart/api/keptSheets';
import type { SheetUse } from '@roof-chart/api/sheetUses';
import { idSchema } from '@roof-chart/core/plan/planSchema';
import type { BoardSheet } from '@roof-chart/core/sheets/boardSheet';
import type { PartSheet } from '@roof-chart/core/sheets/partSheet';
import { sheetJsonSchema } from '@roof-chart/core/sheets/jsonSchema';
import { readSheet } from '@roof-chart/core/sheets/readSheet';
import type { SheetRepository } from '../store/sheetRepository';
import { ApiError, route, valid } from './apiError';

const sheetId = (req: Request): string => valid<string>(idSchema.required(), req.params['id'], 'id');
const gone = (id: string) =>
  new ApiError(404, { code: 'no-such-sheet', message: 'No such sheet among your own sheets.', path: 'id', got: id });

const useText = ({ name, where }: SheetUse): string => (where === 'plan' ? `“${name}”` : `the ${where} “${name}”`);

/** The documents as sheets.
 *  @throws ApiError 422 with every fault and its place */
function readAll(documents: readonly unknown[]): readonly (BoardSheet | PartSheet)[] {
  const read = documents.map(readSheet);
  const faults = read.flatMap((result, at) =>
    result.ok ? [] : result.faults.map(({ path, fault }) => ({ path: `body.sheets.${at}.${path}`, fault, words: `${path}: ${fault}` })),
  );
  const first = faults[0];
  if (first)
    throw new ApiError(
      422,
      {
        code: 'sheet-unsound',
        message: `${faults.length} faults in the sheets; the first is ${first.words}. Nothing was saved.`,
        path: first.path,
      },
      { faults: faults.slice(0, 100).map(({ path, fault }) => ({ path, fault })) },
    );
  return read.flatMap((result) => (result.ok ? [result.sheet] : []));
}

/** The user's own sheets over HTTP. */
export function sheetRoutes(shelf: SheetRepository): Router {
  const router = Router();

  router.post(
    '/',
    route((req, res) => {
      const body = valid<KeepSheets>(keepSheetsSchema.required(), req.body, 'body');
      const outcome = shelf.keep(readAll(body.sheets));
      if (outcome.kind === 'taken')
        throw new ApiError(409, {
          code: 'id-taken',
          message: `The ID ${outcome.id} is used by a library sheet or by a sheet of another kind: choose another ID. Nothing was saved.`,
          path: `body.sheets.${outcome.at}.id`,
          got: outcome.id,
        });
      res.status(201).json({ sheets: outcome.sheets });
    }),
  );

  router.get(
    '/schema/:kind',
    route((req, res) => {
      const kind = valid<'board' | 'part'>(Joi.valid('board', 'part').required(), req.params['kind'], 'kind');
      res.json(sheetJsonSchema(kind));
    }),
  );

  router.get(
    '/:id/plans',
    route((req, res) => void res.json({ plans: shelf.uses(sheetId(req)) })),
  );

  router.delete(
    '/:id',
    route((req, res) => {
      const id = sheetId(req);
      const outcome = shelf.remove(id);
      if (outcome.kind === 'gone') throw gone(id);
      if (outcome.kind === 'used')
        throw new ApiError(409, {
          code: 'sheet-used',
          message: `The sheet is used by ${outcome.by.map(useText).join(', ')} and was not removed.`,
          path: 'id',
          got: id,
        });
      res.status(204).end();
    }),
  );

  return router;
}
