import Joi from 'joi';
import { SOFTWARE_BUSES } from '../sheets/softwareBuses';
import { defaulted, optional, strictObject } from '../sheets/strictObject';
import {
  type Breadboard,
  BREADBOARD_ROWS,
  type Built,
  type BusSettings,
  type ValuesOnHand,
  type Driver,
  DRIVER_KINDS,
  HOLE_SIDES,
  type HolePlace,
  type LadderValues,
  LEG_ORDERS,
  type LoadUse,
  type ModulePlace,
  type Placement,
  type Plan,
  PLAN_LIMITS,
  type PlanPicture,
  type Pull,
  type Readout,
  type SheetRef,
  TOGETHER,
  type Wire,
  WIRE_COLOURS,
  type WireNote,
  type Wish,
} from './plan';

/** Text a person typed: any script, no control characters, bounded. */
export const nameSchema = Joi.string()
  .trim()
  .min(1)
  .max(PLAN_LIMITS.nameLength)
  // Control and bidirectional override characters can disguise a name.

  .pattern(/^[^\u0000-\u001f\u007f-\u009f\u2028-\u202e\u2066-\u2069\p{Cs}]*$/u, 'no control characters')
  .messages({ 'string.pattern.name': '{{#label}} must have no control characters' });

/** A reason a person typed: like a name, but it may be longer and have lines. */
export const reasonSchema = Joi.string()
  .trim()
  .min(1)
  .max(PLAN_LIMITS.reasonLength)
  .pattern(/^[^\u0000-\u0009\u000b-\u001f\u007f-\u009f\u2028-\u202e\u2066-\u2069\p{Cs}]*$/u, 'no control characters')
  .messages({ 'string.pattern.name': '{{#label}} must have no control characters' });

export const findingIdSchema = Joi.string().pattern(/^[a-z][a-z0-9-]*\/[a-z][a-z0-9-]*\/[A-Za-z0-9:,|+_.-]{1,200}$/, 'finding id');

/** An id is a key of objects: it must not reach for their prototype. */
export const idSchema = Joi.string().pattern(/^(?!constructor$|prototype$)[a-z0-9][a-z0-9-]{0,63}$/, 'id');
export const factIdSchema = Joi.string().pattern(/^[A-Za-z0-9][A-Za-z0-9+_.-]{0,31}$/, 'id');

const keySchema = Joi.string().pattern(/^[a-z0-9][a-z0-9-]{0,63}:[A-Za-z0-9][A-Za-z0-9+_.-]{0,31}$/, 'placement:terminal');
/** A rail of the board, or the terminal of a part that gives one. */
const railSchema = Joi.string().pattern(/^([a-z0-9][a-z0-9-]{0,63}:)?[A-Za-z0-9][A-Za-z0-9+_.-]{0,31}$/, 'rail');

export const sheetRefSchema = strictObject<SheetRef>({ id: idSchema, version: Joi.number().integer().min(1) });

export const ohmsSchema = Joi.number().min(0.1).max(1e8);

export const wireEndSchema = Joi.alternatives().conditional('.to', {
  switch: [
    { is: 'pin', then: Joi.object({ to: 'pin', pin: factIdSchema.required() }) },
    { is: 'rail', then: Joi.object({ to: 'rail', rail: railSchema.required() }) },
    { is: 'ground', then: Joi.object({ to: 'ground' }) },
    { is: 'terminal', then: Joi.object({ to: 'terminal', placement: idSchema.required(), terminal: factIdSchema.required() }) },
    { is: 'trimmer', then: Joi.object({ to: 'trimmer', ohms: ohmsSchema.required() }) },
    { is: 'divider', then: Joi.object({ to: 'divider', topOhms: ohmsSchema.required(), bottomOhms: ohmsSchema.required() }) },
  ],
  otherwise: Joi.object({ to: Joi.valid('pin', 'rail', 'ground', 'terminal', 'trimmer', 'divider').required() }),
});

export const colourSchema = Joi.string().valid(...WIRE_COLOURS);

export const placementSchema = strictObject<Placement>({
  id: idSchema,
  sheet: sheetRefSchema,
  name: nameSchema,
  straps: Joi.object().pattern(factIdSchema, factIdSchema).max(16),
  onBoard: optional(Joi.valid(true)),
  pullUpsCut: optional(Joi.valid(true)),
});

export const wireSchema = strictObject<Wire>({
  end: wireEndSchema,
  colour: colourSchema,
  locked: Joi.boolean(),
});

const dateSchema = Joi.string().pattern(/^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$/, 'day');
export const factPathSchema = Joi.string().pattern(
  /^[A-Za-z0-9][A-Za-z0-9+_.-]{0,31}(\/[A-Za-z0-9][A-Za-z0-9+_.-]{0,31}){0,7}$/,
  'path of a fact',
);
const factText = Joi.string().max(400);
export const noteFields = {
  value: Joi.alternatives(Joi.number().min(0).max(1e12), Joi.boolean(), factText, Joi.array().items(factText, Joi.number()).max(40)),
  words: reasonSchema.required(),
  date: dateSchema.required(),
};
const noteSchema = Joi.object({ sheet: idSchema.required(), fact: factPathSchema.required(), ...noteFields });
export const wireNoteSchema = strictObject<WireNote>({
  end: wireEndSchema,
  words: reasonSchema,
  date: dateSchema,
});
const noteKeySchema = Joi.string().pattern(/^[a-z0-9][a-z0-9-]{0,63}:[A-Za-z0-9][A-Za-z0-9+_./-]{0,255}$/, 'sheet:fact');

export const wishSchema = strictObject<Wish>({
  pin: optional(factIdSchema),
  not: optional(Joi.array().items(factIdSchema).min(1).max(200).unique()),
  controller: optional(factIdSchema),
}).or('pin', 'not', 'controller');
export const togetherSchema = Joi.valid(...TOGETHER);

export const busSettingsSchema = strictObject<BusSettings>({
  hz: optional(Joi.number().min(1).max(5e6)),
  addedOhms: optional(Joi.number().min(100).max(1e6)),
  wireCm: optional(Joi.number().min(0).max(1e4)),
  picofarads: optional(Joi.number().min(1).max(1e5)),
}).or('hz', 'addedOhms', 'wireCm', 'picofarads');
/** A controller, or a placement with the channel behind a point. */
export const softwareBusSchema = Joi.valid(...SOFTWARE_BUSES);
export const segmentSchema = Joi.string().pattern(/^[A-Za-z0-9][A-Za-z0-9+_.-]{0,79}$/, 'segment');
export const readoutSchema = strictObject<Readout>({
  // Lines are broken on purpose here; other control characters show nothing.
  text: optional(
    Joi.string()
      .max(PLAN_LIMITS.readoutText)
      .pattern(/^[^\u0000-\u0009\u000b-\u001f\u007f-\u009f\u2028-\u202e\u2066-\u2069\p{Cs}]*$/u, 'no control characters'),
  ),
  scale: optional(Joi.number().integer().min(1).max(16)),
  picture: optional(Joi.valid('whole', 'part', 'none')),
  scroll: optional(Joi.valid(true)),
  glyphs: optional(
    Joi.object()
      .pattern(
        Joi.string().pattern(/^[^\u0000-\u001f\u007f-\u009f\u2028-\u202e\u2066-\u2069\p{Cs}]{1,2}$/u, 'one character'),
        Joi.array().items(Joi.number().integer().min(0).max(255)).min(1).max(8),
      )
      .min(1)
      .max(PLAN_LIMITS.ownGlyphs),
  ),
  pictures: optional(
    Joi.array()
      .items(
        strictObject<PlanPicture>({
          name: nameSchema,
          width: Joi.number().integer().min(1).max(4096),
          height: Joi.number().integer().min(1).max(4096),
          bytes: Joi.number().integer().min(1).max(1e8),
        }),
      )
      .min(1)
      .max(PLAN_LIMITS.pictures),
  ),
}).min(1);
export const ladderSchema = strictObject<LadderValues>({
  pull: ohmsSchema,
  row: Joi.array()
    .items(ohmsSchema)
    .max(PLAN_LIMITS.ladderKeys - 1),
});
export const loadSchema = strictObject<LoadUse>({
  units: optional(Joi.number().integer().min(1).max(PLAN_LIMITS.loadUnits)),
  share: optional(Joi.number().min(0).max(1)),
}).min(1);
export const driverSchema = strictObject<Driver>({
  kind: Joi.valid(...DRIVER_KINDS),
  ohms: ohmsSchema,
  legs: optional(Joi.string().valid(...LEG_ORDERS.bipolar, ...LEG_ORDERS.fieldEffect)),
});
/** A component of the plan: what it belongs to, and what it is there. */
export const componentSchema = Joi.string().pattern(/^[A-Za-z0-9][A-Za-z0-9+_.-]{0,79}:[a-z]{2,12}\.[A-Za-z0-9+_.-]{1,40}$/, 'component');
/** A reference designator, as printed on a drawing. */
export const referenceSchema = Joi.string().pattern(/^[A-Z]{1,3}[0-9]{1,4}$/, 'reference designator');
/** The most rows there are, counted through all boards. */
const LAST_ROW = Math.max(...BREADBOARD_ROWS) * PLAN_LIMITS.breadboards;
export const breadboardSchema = strictObject<Breadboard>({
  rows: Joi.valid(...BREADBOARD_ROWS),
  boards: Joi.number().integer().min(1).max(PLAN_LIMITS.breadboards),
  rails: Joi.valid('whole', 'split'),
  arrangement: optional(Joi.valid('side by side')),
}).when('.arrangement', { is: 'side by side', then: Joi.object({ boards: Joi.valid(2) }) });
export const holePlaceSchema = strictObject<HolePlace>({
  side: Joi.valid(...HOLE_SIDES),
  row: optional(Joi.number().integer().min(1).max(LAST_ROW)),
  locked: optional(Joi.valid(true)),
}).when('.side', { is: 'off', then: Joi.object({ row: Joi.forbidden() }), otherwise: Joi.object({ row: Joi.required() }) });
export const modulePlaceSchema = strictObject<ModulePlace>({
  side: Joi.valid('left', 'right'),
  at: Joi.number().integer().min(0).max(PLAN_LIMITS.placements),
  turned: optional(Joi.valid(true)),
});
/** What is placed on a breadboard: `board`, a placement, or a component. */
export const itemSchema = Joi.string().pattern(
  /^(?!(?:constructor|prototype)$)(?:[a-z0-9][a-z0-9-]{0,63}|[A-Za-z0-9][A-Za-z0-9+_.-]{0,79}:[a-z]{2,12}\.[A-Za-z0-9+_.-]{1,40})$/,
  'board, part or component',
);
export const pullSchema = strictObject<Pull>({ ohms: ohmsSchema, to: Joi.valid('supply', 'ground') });
export const valuesOnHandSchema = strictObject<ValuesOnHand>({
  series: Joi.valid('E3', 'E6', 'E12', 'E24', 'E48', 'E96', 'E192', 'own'),
  own: optional(Joi.array().items(ohmsSchema).min(1).max(PLAN_LIMITS.valuesOnHand).unique()),
}).when('.series', { is: 'own', then: Joi.object({ own: Joi.required() }) });
export const rateSchema = Joi.number().min(0).max(10_000);

/** A step of the build: its kind, what it belongs to, and what of that. */
export const stepSchema = Joi.string().pattern(/^[a-z]{2,12}:[A-Za-z0-9:+_.-]{1,120}$/, 'step');
export const stepValueSchema = Joi.string()
  .min(1)
  .max(120)
  .pattern(/^[^\u0000-\u001f\u007f-\u009f\u2028-\u202e\u2066-\u2069\p{Cs}]*$/u, 'no control characters');
export const builtSchema = strictObject<Built>({
  date: dateSchema,
  wires: Joi.object()
    .pattern(
      keySchema,
      strictObject<Built['wires'][string]>({
        name: Joi.string().max(200),
        end: wireEndSchema,
        to: Joi.string().max(200),
        part: optional(idSchema),
      }),
    )
    .max(2000),
});

/** The shape of a plan file. That its ids exist is checked against the sheets, not here. */
export const planSchema = strictObject<Plan>({
  format: Joi.valid('roof-chart-plan'),
  formatVersion: Joi.valid(1),
  id: idSchema,
  name: nameSchema,
  board: sheetRefSchema,
  placements: Joi.array().items(placementSchema).unique('id').max(PLAN_LIMITS.placements),
  wires: Joi.object().pattern(keySchema, wireSchema),
  ticks: Joi.object().pattern(keySchema, wireEndSchema),
  steps: defaulted(Joi.object().pattern(stepSchema, stepValueSchema).max(PLAN_LIMITS.steps), {}),
  built: defaulted(builtSchema.allow(null), null),
  accepted: defaulted(Joi.object().pattern(findingIdSchema, reasonSchema).max(1000), {}),
  benchNotes: defaulted(Joi.object().pattern(noteKeySchema, noteSchema).max(PLAN_LIMITS.benchNotes), {}),
  wishes: defaulted(Joi.object().pattern(keySchema, wishSchema).max(PLAN_LIMITS.wishes), {}),
  together: defaulted(Joi.object().pattern(idSchema, togetherSchema).max(PLAN_LIMITS.placements), {}),
  busSettings: defaulted(Joi.object().pattern(segmentSchema, busSettingsSchema).max(100), {}),
  softwareBuses: defaulted(Joi.array().items(softwareBusSchema).unique().max(SOFTWARE_BUSES.length), []),
  softwarePwm: defaulted(Joi.object().pattern(keySchema, Joi.valid(true)).max(PLAN_LIMITS.series), {}),
  wireNotes: defaulted(Joi.object().pattern(keySchema, wireNoteSchema).max(PLAN_LIMITS.wireNotes), {}),
  pulls: defaulted(Joi.object().pattern(keySchema, pullSchema).max(PLAN_LIMITS.pulls), {}),
  ladders: defaulted(Joi.object().pattern(idSchema, ladderSchema).max(PLAN_LIMITS.placements), {}),
  loads: defaulted(Joi.object().pattern(idSchema, loadSchema).max(PLAN_LIMITS.placements), {}),
  readouts: defaulted(Joi.object().pattern(idSchema, readoutSchema).max(PLAN_LIMITS.placements), {}),
  capacitors: defaulted(Joi.object().pattern(idSchema, Joi.valid(true)).max(PLAN_LIMITS.placements), {}),
  drivers: defaulted(Joi.object().pattern(keySchema, driverSchema).max(PLAN_LIMITS.drivers), {}),
  series: defaulted(Joi.object().pattern(keySchema, ohmsSchema).max(PLAN_LIMITS.series), {}),
  references: defaulted(Joi.object().pattern(componentSchema, referenceSchema).max(PLAN_LIMITS.references), {}),
  breadboard: defaulted(breadboardSchema.allow(null), null),
  places: defaulted(Joi.object().pattern(itemSchema, holePlaceSchema).max(PLAN_LIMITS.places), {}),
  layout: defaulted(Joi.object().pattern(idSchema, modulePlaceSchema).max(PLAN_LIMITS.placements), {}),
  valuesOnHand: defaulted(valuesOnHandSchema, { series: 'E12' }),
  rates: defaulted(Joi.object().pattern(idSchema, rateSchema).max(PLAN_LIMITS.placements), {}),
  radio: defaulted(Joi.boolean(), true),
}).required();
