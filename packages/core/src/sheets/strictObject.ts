import Joi from 'joi';

/** A field of an object: its schema, and whether it must be there. */
interface Field<S extends Joi.Schema, P extends 'required' | 'optional' | 'defaulted'> {
  readonly schema: S;
  readonly presence: P;
}

/** A field that is always there. */
export const required = <S extends Joi.Schema>(schema: S): Field<S, 'required'> => ({ schema, presence: 'required' });
/** A field that may be left out. */
export const optional = <S extends Joi.Schema>(schema: S): Field<S, 'optional'> => ({ schema, presence: 'optional' });
/** A field that may be left out of a document, and then has its usual value. */
export const defaulted = <S extends Joi.Schema>(schema: S, value: unknown): Field<S, 'defaulted'> => ({
  schema: schema.default(value as Joi.BasicType) as S,
  presence: 'defaulted',
});

/** The kind of Joi schema that a value of this type needs. Of a few values (`'a' | 'b'`, `true`) any schema may say which. */
export type SchemaOf<V> = [V] extends [boolean]
  ? boolean extends V
    ? Joi.BooleanSchema
    : Joi.AnySchema
  : [V] extends [string | null]
    ? string extends V
      ? Joi.StringSchema
      : Joi.AnySchema
    : [V] extends [number | null]
      ? number extends V
        ? Joi.NumberSchema
        : Joi.AnySchema
      : [V] extends [readonly unknown[]]
        ? Joi.ArraySchema
        : Joi.ObjectSchema | Joi.AlternativesSchema;

/** The fields of a type, each with a schema of its kind: optional where the type has it so. */
export type FieldsOf<T> = {
  readonly [K in keyof T]-?: object extends Pick<T, K>
    ? Field<SchemaOf<Exclude<T[K], undefined>>, 'optional'>
    : Field<SchemaOf<T[K]>, 'required' | 'defaulted'>;
};

/** Fields as Joi takes them. */
export const schemaMap = <T extends object>(fields: FieldsOf<T>): Joi.SchemaMap<T> =>
  Object.fromEntries(
    Object.entries<Field<Joi.Schema, 'required' | 'optional' | 'defaulted'>>(fields as never).map(([key, { schema, presence }]) => [
      key,
      presence === 'required' ? schema.required() : schema,
    ]),
  ) as Joi.SchemaMap<T>;

/** The schema of an object with exactly the fields of its type: one too many, one too few, one of another kind, or one that is optional in
 *  the one and required in the other does not compile.
 *  @example strictObject<Pull>({ ohms: required(ohmsSchema), to: required(Joi.valid('supply', 'ground')) }) */
export const strictObject = <T extends object>(fields: FieldsOf<T>): Joi.ObjectSchema<T> => Joi.object<T>(schemaMap(fields));
