import Joi from 'joi';
import { factId, label, sourced } from './schemaParts';
import { BODIES, DIRECTIONS, FEATURES, MOUNTS } from './shape';

/** Nothing that is planned here is larger than a keyboard. */
const mm = Joi.number().min(-20).max(500);
const point = Joi.array().items(mm).length(2);
const size = Joi.array().items(Joi.number().greater(0).max(500)).length(2);

const row = Joi.object({
  header: factId,
  terminals: Joi.array().items(factId).min(1).max(120).unique(),
  firstMm: point.required(),
  towards: Joi.valid(...DIRECTIONS).required(),
}).xor('header', 'terminals');

const feature = Joi.object({ what: Joi.valid(...FEATURES).required(), atMm: point.required(), sizeMm: size.required(), label });

/** The front of a board or part. */
export const shapeSchema = sourced({
  body: Joi.valid(...BODIES).required(),
  widthMm: Joi.number().greater(0).max(500),
  heightMm: Joi.number().greater(0).max(500),
  mount: Joi.valid(...MOUNTS),
  labelledOn: Joi.valid('rear'),
  rowsMm: Joi.number().greater(0).max(100),
  rows: Joi.array().items(row).min(1).max(20),
  features: Joi.array().items(feature).min(1).max(40),
}).and('widthMm', 'heightMm');
