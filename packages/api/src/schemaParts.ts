import Joi from 'joi';

/** A schema that the OpenAPI document lists under a name and refers to by it. */
export const named = <S extends Joi.Schema>(component: string, schema: S): S => schema.meta({ component }) as S;

/** A count, a revision or another whole number from 0. */
export const wholeSchema = Joi.number().integer().min(0);
/** A time as ISO 8601 in UTC. */
export const timeSchema = Joi.string().isoDate();
/** Text without any rule: what the server says, it has checked. */
export const textSchema = Joi.string().allow('');
