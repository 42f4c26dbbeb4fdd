import Joi from 'joi';
import { type FieldsOf, optional, schemaMap, strictObject } from '../sheets/strictObject';
import type { EditKind, EditOf, Soldered } from './edit';
import { PLAN_LIMITS } from './plan';
import {
  breadboardSchema,
  builtSchema,
  busSettingsSchema,
  colourSchema,
  componentSchema,
  valuesOnHandSchema,
  driverSchema,
  factIdSchema,
  factPathSchema,
  findingIdSchema,
  holePlaceSchema,
  idSchema,
  itemSchema,
  ladderSchema,
  loadSchema,
  modulePlaceSchema,
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
  at: at,
  placement: placementSchema.keys({ onBoard: Joi.valid(true).required() }),
  wires: Joi.object().pattern(factIdSchema, wireSchema),
});

const terminal = { placement: idSchema, terminal: factIdSchema };

const FIELDS: { readonly [K in EditKind]: FieldsOf<Omit<EditOf<K>, 'kind'>> } = {
  accept: { finding: findingIdSchema, reason: reasonSchema.allow(null) },
  'bench-note': { sheet: idSchema, fact: factPathSchema, note: Joi.object(noteFields).allow(null) },
  'add-placement': { placement: placementSchema, at: optional(at) },
  colour: { ...terminal, colour: colourSchema },
  lock: { ...terminal, locked: Joi.boolean() },
  'move-placement': { placement: idSchema, at: at },
  'remove-placement': { placement: idSchema },
  'rename-placement': { placement: idSchema, name: nameSchema },
  'rename-plan': { name: nameSchema },
  step: { step: stepSchema, done: stepValueSchema.allow(null) },
  built: { built: builtSchema.allow(null) },
  breadboard: { breadboard: breadboardSchema.allow(null) },
  arrange: { placement: idSchema, place: modulePlaceSchema.allow(null) },
  place: { item: itemSchema, place: holePlaceSchema.allow(null) },
  strap: { placement: idSchema, strap: factIdSchema, state: factIdSchema },
  'switch-board': { board: sheetRefSchema, soldered: Joi.array().items(solderedSchema).max(40) },
  'take-sheet': { placement: idSchema.allow(null), version: Joi.number().integer().min(1) },
  wish: { ...terminal, wish: wishSchema.allow(null) },
  together: { placement: idSchema, how: togetherSchema.allow(null) },
  'software-bus': { bus: softwareBusSchema, on: Joi.boolean() },
  'software-pwm': { ...terminal, on: Joi.boolean() },
  'cut-pull-ups': { placement: idSchema, cut: Joi.boolean() },
  'wire-note': { ...terminal, note: wireNoteSchema.allow(null) },
  pull: { ...terminal, pull: pullSchema.allow(null) },
  ladder: { placement: idSchema, ladder: ladderSchema.allow(null) },
  load: { placement: idSchema, load: loadSchema.allow(null) },
  readout: { placement: idSchema, readout: readoutSchema.allow(null) },
  reference: { component: componentSchema, name: referenceSchema.allow(null) },
  capacitors: { placement: idSchema, there: Joi.boolean() },
  driver: { ...terminal, driver: driverSchema.allow(null) },
  series: { ...terminal, ohms: ohmsSchema.allow(null) },
  'values-on-hand': { valuesOnHand: valuesOnHandSchema },
  'bus-settings': { segment: segmentSchema, settings: busSettingsSchema.allow(null) },
  rate: { placement: idSchema, perSecond: rateSchema.allow(null) },
  radio: { on: Joi.boolean() },
  tick: { ...terminal, end: wireEndSchema.allow(null) },
  unwire: terminal,
  wire: { ...terminal, end: wireEndSchema, colour: optional(colourSchema) },
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
