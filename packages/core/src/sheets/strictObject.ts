import Joi from 'joi';

/** A field that is not always there. */
interface Field<S extends Joi.Schema, P extends 'optional' | 'defaulted'> {
  readonly schema: S;
  readonly presence: P;
}

/** A field that may be left out. */
export const optional = <S extends Joi.Schema>(schema: S): Field<S, 'optional'> => ({ schema, presence: 'optional' });
/** A field that may be left out of a document, and then has its usual value. */
export const defaulted = <S extends Joi.Schema>(schema: S, value: unknown): Field<S, 'defaulted'> => ({
  schema: schema.default(value as Joi.BasicType) as S,
  presence: 'defaulted',
});

/** The kind of Joi schema that a value of this type needs. Of a few values (`'a' | 'b'`, `true`) any schema may say which. */
type SchemaOf<V> = [V] extends [boolean]
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

/** The fields of a type, each with a schema of its kind: `optional` where the type has it so. */
export type FieldsOf<T> = {
  readonly [K in keyof T]-?: object extends Pick<T, K>
    ? Field<SchemaOf<Exclude<T[K], undefined>>, 'optional'>
    : SchemaOf<T[K]> | Field<SchemaOf<T[K]>, 'defaulted'>;
};

/** Fields as Joi takes them. */
export const schemaMap = <T extends object>(fields: FieldsOf<T>): Joi.SchemaMap<T> =>
  Object.fromEntries(
    Object.entries<Joi.Schema | Field<Joi.Schema, 'optional' | 'defaulted'>>(fields as never).map(([key, field]) => [
      key,
      Joi.isSchema(field) ? field.required() : (field as Field<Joi.Schema, 'optional' | 'defaulted'>).schema,
    ]),
  ) as Joi.SchemaMap<T>;

/** The schema of an object with exactly the fields of its type: one too many, one too few, one of another kind, or one that is optional in
 *  the one and required in the other does not compile.
 *  @example strictObject<Pull>({ ohms: ohmsSchema, to: Joi.valid('supply', 'ground') }) */
export const strictObject = <T extends object>(fields: FieldsOf<T>): Joi.ObjectSchema<T> => Joi.object<T>(schemaMap(fields));
