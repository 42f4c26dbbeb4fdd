import { entryOrThrow, firstOrThrow } from '@roof-chart/core/collections/orThrow';
/** A published schema as the form reads it: the parts of JSON Schema that sheets use. */
export interface Shape {
  /** What people read for the field: its label with the unit, and one line of help. */
  readonly title?: string;
  readonly description?: string;
  readonly type?: 'string' | 'number' | 'integer' | 'boolean' | 'array' | 'object';
  readonly enum?: readonly unknown[];
  readonly maxLength?: number;
  readonly items?: Shape | false;
  readonly prefixItems?: readonly Shape[];
  readonly properties?: { readonly [key: string]: Shape };
  readonly required?: readonly string[];
  readonly patternProperties?: { readonly [pattern: string]: Shape };
  readonly anyOf?: readonly Shape[];
}

export type Json = string | number | boolean | null | readonly Json[] | { readonly [key: string]: Json };
export type JsonObject = { readonly [key: string]: Json };

export const isObject = (value: Json | undefined): value is JsonObject =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** The emptiest value of a shape: what a new member of a list starts as. */
export function blankOf(shape: Shape): Json {
  if (shape.enum) return shape.enum[0] as Json;
  if (shape.anyOf) return blankOf(firstOrThrow(shape.anyOf));
  if (shape.prefixItems) return shape.prefixItems.map(blankOf);
  switch (shape.type) {
    case 'number':
    case 'integer':
      return 0;
    case 'boolean':
      return false;
    case 'array':
      return [];
    case 'object':
      return Object.fromEntries((shape.required ?? []).map((key) => [key, blankOf(entryOrThrow(shape.properties ?? {}, key))]));
    default:
      return '';
  }
}

/** Keys that distinguish one of several shapes. */
function marks(shape: Shape): readonly string[] {
  return Object.keys(shape.properties ?? {});
}

/** Which of several shapes a value is meant to have: by the words that only it allows, then by its keys. */
export function shapeAt(shapes: readonly Shape[], value: Json | undefined): number {
  if (!isObject(value)) return 0;
  const said = shapes.findIndex((shape) =>
    Object.entries(shape.properties ?? {}).some(([key, inner]) => inner.enum?.length === 1 && inner.enum[0] === value[key]),
  );
  if (said >= 0) return said;
  const keys = Object.keys(value);
  const fitting = shapes.findIndex((shape) => keys.length > 0 && keys.every((key) => marks(shape).includes(key)));
  return Math.max(0, fitting);
}

/** A name for one of several shapes: the word that only it allows, or its first key. */
export function shapeName(shape: Shape): string {
  const members = Object.entries(shape.properties ?? {});
  const [word] = members.find(([, inner]) => inner.enum?.length === 1)?.[1].enum ?? [];
  const [[key, first] = ['', {}]] = members as readonly (readonly [string, Shape])[];
  return String(word ?? first.title ?? key).replaceAll('-', ' ');
}

/** A short name for a member of a list: its id, label or first text. */
export function memberName(value: Json, at: number): string {
  if (!isObject(value)) return String(at + 1);
  const named = ['label', 'id', 'chip', 'what', 'name', 'controller', 'terminal', 'address', 'duty', 'ports', 'line'].find(
    (key) => value[key] !== undefined && value[key] !== '',
  );
  return named ? String(value[named]) : `${at + 1}`;
}

/** A path of a fault as steps into the document: members named by id become places, an unnamed `list` is stepped into.
 *  As deep as the path can be followed. */
export function stepsOf(document: Json, path: string): readonly (string | number)[] {
  const steps: (string | number)[] = [];
  let value: Json | undefined = document;
  for (const segment of path.split('.').filter(Boolean)) {
    if (isObject(value) && value[segment] === undefined && Array.isArray(value['list'])) {
      steps.push('list');
      value = value['list'];
    }
    if (Array.isArray(value)) {
      const members: readonly Json[] = value;
      const named = members.findIndex((member) => isObject(member) && member['id'] === segment);
      const at = named >= 0 ? named : /^\d+$/.test(segment) && Number(segment) < members.length ? Number(segment) : -1;
      if (at < 0) break;
      steps.push(at);
      value = members[at];
    } else if (isObject(value)) {
      steps.push(segment);
      value = value[segment];
    } else break;
  }
  return steps;
}

/** A path as the id of its field. */
export const fieldId = (steps: readonly (string | number)[]): string => `fact-${steps.join('-')}`;
