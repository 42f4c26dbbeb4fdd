import Joi from 'joi';
import { type FieldsOf, optional, required, schemaMap, strictObject } from '../sheets/strictObject';
import type { EditKind, EditOf, Soldered } from './edit';
import { PLAN_LIMITS } from './plan';
import {
  builtSchema,
  busSettingsSchema,
  colourSchema,
  componentSchema,
  drawerSchema,
  driverSchema,
  factIdSchema,
  factPathSchema,
  findingIdSchema,
  idSchema,
  ladderSchema,
  loadSchema,
  nameSchema,
  noteFields,
  ohmsSchema,
  placementSchema,
  pullSchema,
  wireNoteSchema,
  rateSchema,
  readoutSchema,
  referenceSchema,
  reasonSchema,
  segmentSchema,
  sheetRefSchema,
  softwareBusSchema,
  stepSchema,
  stepValueSchema,
  togetherSchema,
  wireEndSchema,
  wireSchema,
  wishSchema,
} from './planSchema';

const at = Joi.number().integer().min(0).max(PLAN_LIMITS.placements);
/** A part that is soldered to a board, with its wires. */
const solderedSchema = strictObject<Soldered>({
  at: required(at),
  placement: required(placementSchema.keys({ onBoard: Joi.valid(true).required() })),
  wires: required(Joi.object().pattern(factIdSchema, wireSchema)),
});

const terminal = { placement: required(idSchema), terminal: required(factIdSchema) };

const FIELDS: { readonly [K in EditKind]: FieldsOf<Omit<EditOf<K>, 'kind'>> } = {
  accept: { finding: required(findingIdSchema), reason: required(reasonSchema.allow(null)) },
  'bench-note': { sheet: required(idSchema), fact: required(factPathSchema), note: required(Joi.object(noteFields).allow(null)) },
  'add-placement': { placement: required(placementSchema), at: optional(at) },
  colour: { ...terminal, colour: required(colourSchema) },
  lock: { ...terminal, locked: required(Joi.boolean()) },
  'move-placement': { placement: required(idSchema), at: required(at) },
  'remove-placement': { placement: required(idSchema) },
  'rename-placement': { placement: required(idSchema), name: required(nameSchema) },
  'rename-plan': { name: required(nameSchema) },
  step: { step: required(stepSchema), done: required(stepValueSchema.allow(null)) },
  built: { built: required(builtSchema.allow(null)) },
  strap: { placement: required(idSchema), strap: required(factIdSchema), state: required(factIdSchema) },
  'switch-board': { board: required(sheetRefSchema), soldered: required(Joi.array().items(solderedSchema).max(40)) },
  'take-sheet': { placement: required(idSchema.allow(null)), version: required(Joi.number().integer().min(1)) },
  wish: { ...terminal, wish: required(wishSchema.allow(null)) },
  together: { placement: required(idSchema), how: required(togetherSchema.allow(null)) },
  'software-bus': { bus: required(softwareBusSchema), on: required(Joi.boolean()) },
  'software-pwm': { ...terminal, on: required(Joi.boolean()) },
  'cut-pull-ups': { placement: required(idSchema), cut: required(Joi.boolean()) },
  'wire-note': { ...terminal, note: required(wireNoteSchema.allow(null)) },
  pull: { ...terminal, pull: required(pullSchema.allow(null)) },
  ladder: { placement: required(idSchema), ladder: required(ladderSchema.allow(null)) },
  load: { placement: required(idSchema), load: required(loadSchema.allow(null)) },
  readout: { placement: required(idSchema), readout: required(readoutSchema.allow(null)) },
  reference: { component: required(componentSchema), name: required(referenceSchema.allow(null)) },
  capacitors: { placement: required(idSchema), there: required(Joi.boolean()) },
  driver: { ...terminal, driver: required(driverSchema.allow(null)) },
  series: { ...terminal, ohms: required(ohmsSchema.allow(null)) },
  drawer: { drawer: required(drawerSchema) },
  'bus-settings': { segment: required(segmentSchema), settings: required(busSettingsSchema.allow(null)) },
  rate: { placement: required(idSchema), perSecond: required(rateSchema.allow(null)) },
  radio: { on: required(Joi.boolean()) },
  tick: { ...terminal, end: required(wireEndSchema.allow(null)) },
  unwire: terminal,
  wire: { ...terminal, end: required(wireEndSchema), colour: optional(colourSchema) },
};

/** The schema of one edit, discriminated by `kind`. */
export const editSchema = Joi.alternatives().conditional('.kind', {
  switch: Object.entries(FIELDS).map(([kind, fields]) => ({
    is: kind,
    then: Joi.object({ kind: Joi.valid(kind), ...schemaMap(fields as FieldsOf<object>) }),
  })),
  otherwise: Joi.object({ kind: Joi.valid(...Object.keys(FIELDS)).required() }).unknown(),
});

export const editsSchema = Joi.array().items(editSchema).min(1).max(PLAN_LIMITS.editsPerBatch);
