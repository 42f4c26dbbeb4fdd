import Joi from 'joi';
import { REGULATOR_KINDS } from './boardSheet';
import { TRUSTS } from './source';

/** Pieces that board and part sheets share. */
export const sheetId = Joi.string().pattern(/^[a-z0-9][a-z0-9-]{0,63}$/, 'id');
export const factId = Joi.string().pattern(/^[A-Za-z0-9][A-Za-z0-9+_.-]{0,31}$/, 'id');
/** No control, line-separating, surrogate or direction-changing characters: they can disguise a text, or end a comment. */
const PLAIN_TEXT = /^[^\p{Cc}\p{Cs}\u2028-\u202e\u2066-\u2069]*$/u;
export const words = Joi.string().min(1).max(400).pattern(PLAIN_TEXT, 'no control characters');
export const label = Joi.string().min(1).max(40).pattern(PLAIN_TEXT, 'no control characters');
export const quantity = Joi.number().min(0).max(1e12);
/** Of what no circuit has none of: a clock, the voltage of a rail, a resistor. */
export const positive = Joi.number().greater(0).max(1e12);

const rangeOf = (part: Joi.NumberSchema) =>
  Joi.object({ min: part.required(), typ: part, max: part.required() }).custom((value, helpers) => {
    const { min, typ = value.min, max } = value as { min: number; typ?: number; max: number };
    return min <= typ && typ <= max ? value : helpers.error('any.custom', { error: new Error('expected min ≤ typ ≤ max') });
  });

export const range = rangeOf(quantity);
export const positiveRange = rangeOf(positive);

export const source = Joi.object({
  document: words.required(),
  section: words,
  trust: Joi.valid(...TRUSTS).required(),
  note: words,
});

/** A group of facts with its source. */
export const sourced = (fields: Joi.PartialSchemaMap) => Joi.object({ source: source.required(), ...fields });
/** The schema of a list with a source. */
export const sourcedList = (item: Joi.Schema) => sourced({ list: Joi.array().items(item).max(400).required() });

export const levelFact = Joi.alternatives(
  Joi.object({ ratio: quantity.max(1).required() }),
  Joi.object({ volts: quantity.max(60).required() }),
);
export const driveFact = Joi.object({ volts: quantity.required(), atMilliamps: quantity.required() });

/** How a regulator makes a supply of another. */
export const regulator = Joi.object({
  from: factId.required(),
  kind: Joi.valid(...REGULATOR_KINDS),
  dropVolts: quantity,
  kelvinPerWatt: quantity,
  efficiency: Joi.number().greater(0.3).less(1).when('kind', { is: 'converter', then: Joi.required(), otherwise: Joi.forbidden() }),
});
