import { type JsonSchema, jsonSchemaOf } from '../sheets/jsonSchema';
import { fileSchema } from './planFile';

/** What is checked of a plan file besides its shape. */
const BEYOND = [
  'ids of parts unique, names without blanks at their ends',
  'sheets carried along as the schemas of sheets say',
  'boards, parts, terminals, pins and rails there in the sheets',
] as const;

/** The published shape of plan files: JSON Schema, made from the validator so that the two cannot part. */
export const planJsonSchema = (): JsonSchema =>
  jsonSchemaOf(fileSchema, 'Plan file', `The shape of a plan file, version 1. Checked besides: ${BEYOND.join('; ')}.`);
