import Joi from 'joi';
import { TRUSTS } from './source';

/** Pieces that board and part sheets share. */
export const sheetId = Joi.string().pattern(/^[a-z0-9][a-z0-9-]{0,63}$/, 'id');
export const factId = Joi.string().pattern(/^[A-Za-z0-9][A-Za-z0-9+_.-]{0,31}$/, 'id');
export const words = Joi.string().min(1).max(400);
export const label = Joi.string().min(1).max(40);
export const quantity = Joi.number().min(0).max(1e12);

export const range = Joi.object({ min: quantity.required(), typ: quantity, max: quantity.required() }).custom((value, helpers) => {
  const { min, typ = value.min, max } = value as { min: number; typ?: number; max: number };
  return min <= typ && typ <= max ? value : helpers.error('any.custom', { error: new Error('expected min ≤ typ ≤ max') });
});

export const source = Joi.object({
  document: words.required(),
  section: words,
  trust: Joi.valid(...TRUSTS).required(),
  note: words,
});

/** A group of facts with its source. */
export const sourced = (fields: Joi.PartialSchemaMap) => Joi.object({ source: source.required(), ...fields });
export const sourcedList = (item: Joi.Schema) => sourced({ list: Joi.array().items(item).max(400).required() });

export const levelFact = Joi.alternatives(
  Joi.object({ ratio: quantity.max(1).required() }),
  Joi.object({ volts: quantity.max(60).required() }),
);
export const driveFact = Joi.object({ volts: quantity.required(), atMilliamps: quantity.required() });
