import { firstOrThrow } from '../collections/orThrow';
import type Joi from 'joi';
import { type FieldDocument, fieldText, labelOf } from '../text/fieldText';
import { boardSchema } from './boardSchema';
import { partSchema } from './partSchema';

/** The published JSON Schema of sheets (draft 2020-12), generated from the validator so that the two agree.
 *  Rules that a JSON Schema cannot express stay with the validator and are listed in its description. */
export const BEYOND_SHAPE = [
  'min ≤ typ ≤ max in every range',
  'peakMilliamps at least typicalMilliamps',
  'IDs unique among straps, strap states and devices; addresses unique within a device',
  'references: declared controllers and rails, header positions without gaps, strap tables, bus terminals',
] as const;

export interface JsonSchema {
  readonly [key: string]: unknown;
}

interface Rule {
  readonly name: string;
  readonly args?: { readonly limit?: unknown; readonly regex?: string; readonly comparator?: string };
}

interface When {
  /** Of the object itself, or (no ancestor) of the object that it is a key of. */
  readonly ref: { readonly path: readonly string[]; readonly ancestor?: 0 };
  readonly is: Described;
  readonly then?: Described;
  readonly otherwise?: Described;
}

/** A Joi schema description, as far as sheets use it. */
interface Described {
  readonly type: string;
  readonly flags?: { readonly presence?: string; readonly only?: boolean; readonly unknown?: boolean };
  readonly allow?: readonly unknown[];
  readonly metas?: readonly { readonly component?: string }[];
  readonly rules?: readonly Rule[];
  readonly keys?: { readonly [key: string]: Described };
  readonly patterns?: readonly { readonly schema: Described; readonly rule: Described }[];
  readonly dependencies?: readonly { readonly rel: string; readonly peers: readonly string[] }[];
  readonly items?: readonly Described[];
  readonly ordered?: readonly Described[];
  readonly matches?: readonly {
    readonly schema?: Described;
    readonly ref?: { readonly path: readonly string[] };
    readonly switch?: readonly { readonly is: Described; readonly then: Described }[];
  }[];
  readonly whens?: readonly When[];
}

/** The place of a schema: its document and the enclosing named field. */
interface Place {
  /** Whose field texts it carries; none for messages. */
  readonly document?: FieldDocument;
  readonly parent: string;
  /** Schemas that are referred to by name, by that name; each is added where it is first met. */
  readonly components?: Map<string, JsonSchema>;
}

/** The pattern of a rule, as JSON Schema writes it.
 *  @throws Error where the rule has none */
function patternOf(rule: Rule | undefined): string {
  const regex = rule?.args?.regex;
  if (regex === undefined) throw new Error('A rule without a pattern');
  return regex.replace(/^\/|\/[a-z]*$/g, '');
}

function stringSchema(rules: readonly Rule[]): JsonSchema {
  const schema: { [key: string]: unknown } = { type: 'string', minLength: 1 };
  for (const rule of rules) {
    const { name, args = {} } = rule;
    if (name === 'pattern') schema['pattern'] = patternOf(rule);
    if (name === 'min') schema['minLength'] = args.limit;
    if (name === 'max') schema['maxLength'] = args.limit;
    if (name === 'guid') schema['format'] = 'uuid';
    if (name === 'isoDate') schema['format'] = 'date-time';
  }
  return schema;
}

function numberSchema(rules: readonly Rule[]): JsonSchema {
  const schema: { [key: string]: unknown } = { type: 'number' };
  for (const { name, args } of rules) {
    const limit = typeof args?.limit === 'number' ? args.limit : undefined;
    if (name === 'integer') schema['type'] = 'integer';
    if (limit === undefined) continue;
    if (name === 'min') schema['minimum'] = limit;
    if (name === 'max') schema['maximum'] = limit;
    if (name === 'greater') schema['exclusiveMinimum'] = limit;
    if (name === 'less') schema['exclusiveMaximum'] = limit;
  }
  return schema;
}

function arraySchema(described: Described, at: Place): JsonSchema {
  const schema: { [key: string]: unknown } = { type: 'array' };
  if (described.ordered)
    Object.assign(schema, {
      prefixItems: described.ordered.map((item) => convert(item, at)),
      items: false,
      minItems: described.ordered.length,
    });
  const [item] = described.items ?? [];
  if (item) schema['items'] = convert(item, at);
  for (const { name, args = {} } of described.rules ?? []) {
    if (name === 'min') schema['minItems'] = args.limit;
    if (name === 'max') schema['maxItems'] = args.limit;
    if (name === 'length') Object.assign(schema, { minItems: args.limit, maxItems: args.limit });
    if (name === 'unique' && !args.comparator) schema['uniqueItems'] = true;
  }
  return schema;
}

const isRequired = (described: Described): boolean => described.flags?.presence === 'required';

/** A condition on a neighbour: what it must be, and what then holds for the key. */
function condition(key: string, when: When): JsonSchema {
  const neighbour = firstOrThrow(when.ref.path);
  const holds = (presence: string | undefined): JsonSchema =>
    presence === 'required' ? { required: [key] } : presence === 'forbidden' ? { not: { required: [key] } } : {};
  return {
    if: { properties: { [neighbour]: { enum: allowed(when.is) } }, required: [neighbour] },
    then: holds(when.then?.flags?.presence),
    else: holds(when.otherwise?.flags?.presence),
  };
}

/** A condition of a whole object: what one of its keys must be, and what it then needs. */
function wholeCondition({ ref, is, then }: When): JsonSchema {
  const key = firstOrThrow(ref.path);
  const keys = Object.entries(then?.keys ?? {});
  const needed = keys.flatMap(([name, value]) => (isRequired(value) ? [name] : []));
  const values = keys.flatMap(([name, value]) => (value.flags?.only ? [[name, { enum: allowed(value) }] as const] : []));
  return {
    if: { properties: { [key]: { enum: allowed(is) } }, required: [key] },
    then: { ...(needed.length > 0 ? { required: needed } : {}), ...(values.length > 0 ? { properties: Object.fromEntries(values) } : {}) },
  };
}

/** Alternatives with a discriminator key, which is required. */
function toldApart(key: string, shapes: readonly Described[], at: Place): JsonSchema {
  return {
    anyOf: shapes.map((shape) => {
      const schema = convert(shape, at) as { readonly required?: readonly string[] };
      return { ...schema, required: [...new Set([key, ...(schema.required ?? [])])] };
    }),
  };
}

/** A field with the label and help that people read for it. */
function fieldSchema(key: string, described: Described, at: Place): JsonSchema {
  const text = at.document && fieldText(at.document, at.parent, key);
  const inside = key === 'list' ? at : { ...at, parent: key };
  return {
    ...(text ? { title: labelOf(text) } : {}),
    ...(text?.help === undefined ? {} : { description: text.help }),
    ...convert(described, inside),
  };
}

function objectSchema(described: Described, at: Place): JsonSchema {
  const keys = Object.entries(described.keys ?? {});
  const required = keys.filter(([, value]) => isRequired(value)).map(([key]) => key);
  const conditions = keys.flatMap(([key, value]) =>
    (value.whens ?? []).filter(({ ref }) => ref.ancestor !== 0).map((when) => condition(key, when)),
  );
  const together = (described.dependencies ?? []).filter((d) => d.rel === 'and');
  const oneOf = (described.dependencies ?? []).filter((d) => d.rel === 'or');
  const exactlyOne = (described.dependencies ?? []).filter((d) => d.rel === 'xor');
  const whole = (described.whens ?? []).map(wholeCondition);
  const limits = Object.fromEntries(
    (described.rules ?? []).flatMap(({ name, args = {} }) =>
      name === 'min' ? [['minProperties', args.limit]] : name === 'max' ? [['maxProperties', args.limit]] : [],
    ),
  ) as JsonSchema;
  const pattern = described.patterns?.[0];
  return {
    type: 'object',
    ...(keys.length > 0 ? { properties: Object.fromEntries(keys.map(([key, value]) => [key, fieldSchema(key, value, at)])) } : {}),
    ...(required.length > 0 ? { required } : {}),
    ...(pattern ? { patternProperties: { [patternOf(pattern.schema.rules?.[0])]: convert(pattern.rule, at) } } : {}),
    ...(described.flags?.unknown ? {} : { additionalProperties: false }),
    ...(together.length > 0
      ? { dependentRequired: Object.fromEntries(together.flatMap((d) => d.peers.map((p) => [p, d.peers.filter((q) => q !== p)]))) }
      : {}),
    ...limits,
    ...(oneOf.length > 0 ? { anyOf: oneOf.flatMap((d) => d.peers.map((peer) => ({ required: [peer] }))) } : {}),
    ...(exactlyOne.length > 0 ? { oneOf: exactlyOne.flatMap((d) => d.peers.map((peer) => ({ required: [peer] }))) } : {}),
    ...(conditions.length + whole.length > 0 ? { allOf: [...conditions, ...whole] } : {}),
  };
}

const allowed = (described: Described): readonly unknown[] =>
  (described.allow ?? []).filter((value) => !(typeof value === 'object' && value !== null && 'override' in value));

/** A reference to a schema that has a name; the schema itself joins the others. */
function reference(name: string, described: Described, at: Place): JsonSchema {
  const { components } = at;
  if (components && !components.has(name)) {
    components.set(name, {});
    components.set(name, convert({ ...described, metas: [] }, at));
  }
  return { $ref: `#/components/schemas/${name}` };
}

function convert(described: Described, at: Place): JsonSchema {
  const name = at.components && described.metas?.find(({ component }) => component !== undefined)?.component;
  if (name !== undefined) return reference(name, described, at);
  if (described.flags?.only) return { enum: allowed(described) };
  // What may also be nothing.
  if (described.allow?.includes(null)) return { anyOf: [convert({ ...described, allow: [] }, at), { type: 'null' }] };
  switch (described.type) {
    case 'string':
      return described.allow?.includes('') ? { ...stringSchema(described.rules ?? []), minLength: 0 } : stringSchema(described.rules ?? []);
    case 'number':
      return numberSchema(described.rules ?? []);
    case 'boolean':
      return { type: 'boolean' };
    case 'array':
      return arraySchema(described, at);
    case 'object':
      return objectSchema(described, at);
    case 'alternatives': {
      const { matches = [] } = described;
      const [first] = matches;
      if (first?.ref && first.switch)
        return toldApart(
          firstOrThrow(first.ref.path),
          first.switch.map((one) => one.then),
          at,
        );
      return { anyOf: matches.flatMap(({ schema }) => (schema ? [convert(schema, at)] : [])) };
    }
    default:
      throw new Error(`Unsupported schema type ${described.type}`);
  }
}

/** The JSON Schema of a Joi schema, as far as it can say it.
 *  @param document whose field texts it carries
 *  @param description what is checked besides the schema */
export function jsonSchemaOf(schema: Joi.Schema, document: FieldDocument, title: string, description: string): JsonSchema {
  return {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    title,
    description,
    ...convert(schema.describe() as unknown as Described, { document, parent: '' }),
  };
}

/** The JSON Schema of a message, which refers to schemas with a name (`component` in its meta data) by it.
 *  @param components takes those in */
export const messageJsonSchema = (schema: Joi.Schema, components: Map<string, JsonSchema>): JsonSchema =>
  convert(schema.describe() as unknown as Described, { parent: '', components });

/** The JSON Schema of board or part sheets. */
export function sheetJsonSchema(kind: 'board' | 'part'): JsonSchema {
  return jsonSchemaOf(
    kind === 'board' ? boardSchema : partSchema,
    kind,
    `${kind === 'board' ? 'Board' : 'Part'} sheet`,
    `Also checked: ${BEYOND_SHAPE.join('; ')}.`,
  );
}
