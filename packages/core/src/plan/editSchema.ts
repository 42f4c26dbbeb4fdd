import Joi from 'joi';
import type { EditKind } from './edit';
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
const terminal = { placement: idSchema.required(), terminal: factIdSchema.required() };

const FIELDS: { readonly [K in EditKind]: Joi.PartialSchemaMap } = {
  accept: { finding: findingIdSchema.required(), reason: reasonSchema.allow(null).required() },
  'bench-note': { sheet: idSchema.required(), fact: factPathSchema.required(), note: Joi.object(noteFields).allow(null).required() },
  'add-placement': { placement: placementSchema.required(), at },
  colour: { ...terminal, colour: colourSchema.required() },
  lock: { ...terminal, locked: Joi.boolean().required() },
  'move-placement': { placement: idSchema.required(), at: at.required() },
  'remove-placement': { placement: idSchema.required() },
  'rename-placement': { placement: idSchema.required(), name: nameSchema.required() },
  'rename-plan': { name: nameSchema.required() },
  step: { step: stepSchema.required(), done: stepValueSchema.allow(null).required() },
  built: { built: builtSchema.allow(null).required() },
  strap: { placement: idSchema.required(), strap: factIdSchema.required(), state: factIdSchema.required() },
  'switch-board': {
    board: sheetRefSchema.required(),
    soldered: Joi.array()
      .items(
        Joi.object({
          at: at.required(),
          placement: placementSchema.keys({ onBoard: Joi.valid(true).required() }).required(),
          wires: Joi.object().pattern(factIdSchema, wireSchema).required(),
        }),
      )
      .max(40)
      .required(),
  },
  'take-sheet': { placement: idSchema.allow(null).required(), version: Joi.number().integer().min(1).required() },
  wish: { ...terminal, wish: wishSchema.allow(null).required() },
  together: { placement: idSchema.required(), how: togetherSchema.allow(null).required() },
  'software-bus': { bus: softwareBusSchema.required(), on: Joi.boolean().required() },
  'software-pwm': { ...terminal, on: Joi.boolean().required() },
  'cut-pull-ups': { placement: idSchema.required(), cut: Joi.boolean().required() },
  'wire-note': { ...terminal, note: wireNoteSchema.allow(null).required() },
  pull: { ...terminal, pull: pullSchema.allow(null).required() },
  ladder: { placement: idSchema.required(), ladder: ladderSchema.allow(null).required() },
  load: { placement: idSchema.required(), load: loadSchema.allow(null).required() },
  readout: { placement: idSchema.required(), readout: readoutSchema.allow(null).required() },
  reference: { component: componentSchema.required(), name: referenceSchema.allow(null).required() },
  capacitors: { placement: idSchema.required(), there: Joi.boolean().required() },
  driver: { ...terminal, driver: driverSchema.allow(null).required() },
  series: { ...terminal, ohms: ohmsSchema.allow(null).required() },
  drawer: { drawer: drawerSchema.required() },
  'bus-settings': { segment: segmentSchema.required(), settings: busSettingsSchema.allow(null).required() },
  rate: { placement: idSchema.required(), perSecond: rateSchema.allow(null).required() },
  radio: { on: Joi.boolean().required() },
  tick: { ...terminal, end: wireEndSchema.allow(null).required() },
  unwire: terminal,
  wire: { ...terminal, end: wireEndSchema.required(), colour: colourSchema },
};

/** The schema of one edit, discriminated by `kind`. */
export const editSchema = Joi.alternatives().conditional('.kind', {
  switch: Object.entries(FIELDS).map(([kind, fields]) => ({ is: kind, then: Joi.object({ kind: Joi.valid(kind), ...fields }) })),
  otherwise: Joi.object({ kind: Joi.valid(...Object.keys(FIELDS)).required() }).unknown(),
});

export const editsSchema = Joi.array().items(editSchema).min(1).max(PLAN_LIMITS.editsPerBatch);
