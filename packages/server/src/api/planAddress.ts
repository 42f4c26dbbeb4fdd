import type { Request } from 'express';
import { idSchema } from '@roof-chart/core/plan/planSchema';
import type { SeenRevision } from '../store/editBatches';
import { ApiError, valid } from './apiError';

/** The plan that an address names.
 *  @throws ApiError 400 where that is no ID */
export const planId = (req: Request): string => valid<string>(idSchema.required(), req.params['id'], 'id');
/** The answer where there is no such plan. */
export const gone = (id: string) => new ApiError(404, { code: 'no-such-plan', message: 'No such plan.', path: 'id', got: id });

/** A revision as an entity tag: it names the life of the database, too, so that one before a restore never matches. */
export const etag = ({ revision, epoch }: SeenRevision): string => `"${revision}-${epoch}"`;
