import { type JsonSchema, jsonSchemaOf } from '../sheets/jsonSchema';
import { fileSchema } from './planFile';

/** What is checked of a plan file besides its shape. */
const BEYOND = [
  'IDs of parts are unique; names have no leading or trailing spaces',
  'enclosed sheets are valid',
  'boards, parts, terminals, pins and rails exist in the sheets',
] as const;

/** The published shape of plan files: JSON Schema, made from the validator so that the two cannot part. */
export const planJsonSchema = (): JsonSchema =>
  jsonSchemaOf(fileSchema, 'plan', 'Plan file, version 1', `Also checked: ${BEYOND.join('; ')}.`);
