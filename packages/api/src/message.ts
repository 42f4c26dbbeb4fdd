import Joi from 'joi';
import type { SchemaOf } from '@roof-chart/core/sheets/strictObject';

type OptionalKey<T> = { [K in keyof T]-?: object extends Pick<T, K> ? K : never }[keyof T];
type RequiredKey<T> = Exclude<keyof T, OptionalKey<T>>;

type Fields<T, K extends keyof T> = { readonly [N in K]-?: SchemaOf<Exclude<T[N], undefined>> };

/** The schema of a message, with exactly the fields of its type: one too many, one too few, one of another kind, or one that is optional in
 *  the one and required in the other does not compile.
 *  @param required fields that are always there
 *  @param optional fields that may be left out
 *  @example message<SignIn>({ passphrase: Joi.string() }) */
export function message<T extends object>(
  required: Fields<T, RequiredKey<T>>,
  ...[optional]: [OptionalKey<T>] extends [never] ? [] : [Fields<T, OptionalKey<T>>]
): Joi.ObjectSchema<T> {
  const always = Object.entries<Joi.Schema>(required).map(([key, schema]) => [key, schema.required()] as const);
  return Joi.object<T>({ ...Object.fromEntries(always), ...(optional as object | undefined) } as Joi.SchemaMap<T>);
}

/** A schema that the OpenAPI document lists under a name and refers to by it. */
export const named = <S extends Joi.Schema>(component: string, schema: S): S => schema.meta({ component }) as S;

/** A count, a revision or another whole number from 0. */
export const wholeSchema = Joi.number().integer().min(0);
/** A time as ISO 8601 in UTC. */
export const timeSchema = Joi.string().isoDate();
/** Text without any rule: what the server says, it has checked. */
export const textSchema = Joi.string().allow('');
