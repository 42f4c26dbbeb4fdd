import Joi from 'joi';
import { USB_CONNECTORS, CHIP_COMPONENTS, DUTIES, PIN_EFFECTS } from './boardSheet';
import { CONTROLLER_KINDS } from './roles';
import { shapeSchema } from './shapeSchema';
import {
  driveFact,
  factId,
  label,
  levelFact,
  quantity,
  range,
  regulator,
  sheetId,
  sourced,
  sourcedList,
  words,
  positive,
  positiveRange,
} from './schemaParts';

const functionName = Joi.string().pattern(/^[a-z][a-z0-9]*[0-9]+\.[a-z]+$/, 'controller.line');

const pin = Joi.object({
  id: factId.required(),
  header: factId,
  position: Joi.number().integer().min(1).max(400),
  label: label.required(),
  port: label,
  also: Joi.array().items(label),
  kind: Joi.valid('io', 'ground', 'supply', 'control', 'unconnected').required(),
  rail: factId.when('kind', { is: 'supply', then: Joi.required(), otherwise: Joi.forbidden() }),
  control: Joi.valid('reset').when('kind', { is: 'control', otherwise: Joi.forbidden() }),
  sameAs: factId,
  io: Joi.valid('both', 'in', 'out', 'analog'),
  functions: Joi.array().items(functionName).unique(),
  adc: Joi.object({ unit: factId.required(), channel: Joi.number().integer().min(0).required() }),
  pwm: Joi.object({ timer: label.required(), channel: label.required() }),
  interrupts: Joi.array().items(Joi.object({ line: label.required(), shared: Joi.boolean().required() })),
  touch: label,
  dac: Joi.object({ unit: factId.required(), channel: Joi.number().integer().min(0).required() }),
  crossbar: Joi.valid(true),
  limits: Joi.object({
    noPullUp: Joi.valid(true),
    noPullDown: Joi.valid(true),
    noOpenDrain: Joi.valid(true),
    tolerantVolts: quantity.max(60),
    tolerantUnless: words,
    milliamps: quantity,
  }),
  atReset: words,
  starts: Joi.valid('high', 'low', 'pulses'),
  duties: Joi.array().items(
    Joi.object({
      duty: Joi.valid(...DUTIES).required(),
      note: words.required(),
      ohms: quantity,
      level: Joi.valid('high', 'low'),
      way: Joi.valid('sends', 'receives'),
      effect: Joi.valid(...PIN_EFFECTS),
      until: words,
    }),
  ),
  grade: Joi.valid('free', 'caution', 'reserved'),
  trouble: words.when('grade', { is: Joi.valid('caution', 'reserved').required(), then: Joi.required() }),
}).and('header', 'position');

const pinChoices = Joi.array().items(Joi.object().pattern(factId, factId));

const controller = Joi.object({
  id: factId.required(),
  kind: Joi.valid(...CONTROLLER_KINDS).required(),
  title: label.required(),
  maxHz: positive.required(),
  modes: Joi.array().items(label),
  legal: Joi.alternatives(
    Joi.object({ rule: Joi.valid('membership').required() }),
    Joi.object({ rule: Joi.valid('sets').required(), sets: pinChoices.min(1).required() }),
    Joi.object({
      rule: Joi.valid('any-pin').required(),
      lines: Joi.array().items(factId).min(1).unique().required(),
      sets: pinChoices.required(),
      customary: pinChoices.min(1),
      maxHz: positive.required(),
    }),
  ).required(),
  software: Joi.valid(true),
  note: words,
});

const current = {
  typicalMilliamps: quantity.required(),
  peakMilliamps: quantity.min(Joi.ref('typicalMilliamps')).required(),
};

const rail = Joi.object({
  id: factId.required(),
  label: label.required(),
  volts: positiveRange.required(),
  usual: Joi.object({ min: positive.required(), max: positive.required() }),
  budgetMilliamps: quantity,
  feed: words.required(),
  regulator,
  own: Joi.object({ ...current, leftOut: Joi.valid(true) }),
  direction: Joi.valid('out', 'in', 'both').required(),
});

const usualBus = Joi.object({
  controller: factId.required(),
  pins: Joi.object().pattern(factId, factId).min(1).required(),
  selects: Joi.array().items(factId).min(1).max(8).unique(),
});

const header = Joi.object({
  id: factId.required(),
  title: label.required(),
  ends: Joi.array().ordered(label.required(), label.required()).required(),
  side: Joi.valid('left', 'right', 'inside').required(),
  rows: Joi.valid(2),
  contact: Joi.valid('socket', 'pin'),
});

const boardEnd = Joi.alternatives(
  Joi.object({ to: Joi.valid('pin').required(), pin: factId.required() }),
  Joi.object({ to: Joi.valid('rail').required(), rail: factId.required() }),
  Joi.object({ to: Joi.valid('ground').required() }),
);

const onBoardPart = Joi.object({
  part: sheetId.required(),
  name: label.required(),
  wires: Joi.object().pattern(factId, boardEnd).required(),
});

const electrical = sourced({
  vdd: positiveRange.required(),
  vihMin: levelFact.required(),
  vilMax: levelFact.required(),
  vohMin: driveFact.required(),
  volMax: driveFact.required(),
  inputMaxAboveSupply: quantity.required(),
  pinCapacitancePicofarads: quantity,
  pullUpOhms: positiveRange,
  pullDownOhms: positiveRange,
  outputOhms: positiveRange,
  driveSettings: Joi.array().items(
    Joi.object({ setting: words.required(), volts: quantity.required(), atMilliamps: positive.required(), initial: Joi.valid(true) }),
  ),
  pinMilliamps: positive.required(),
  totalMilliamps: quantity,
  portSums: Joi.array().items(Joi.object({ ports: words.required(), sinkMilliamps: quantity.required(), sourceMilliamps: quantity })),
  resetState: words.required(),
});

const bytes = Joi.number().integer().min(0);

const designator = Joi.string().pattern(/^[A-Z]{1,2}[1-9][0-9]{0,2}$/, 'a reference designator: C1, R1, Y1');

const chipComponent = Joi.object({
  name: designator.required(),
  kind: Joi.valid(...Object.keys(CHIP_COMPONENTS)).required(),
  value: quantity.greater(0).required(),
  ends: Joi.array().items(factId).length(2).unique().required(),
  note: words,
});

const chipConnector = Joi.object({
  name: designator.required(),
  title: label.required(),
  pins: Joi.array()
    .items(Joi.object({ number: Joi.number().integer().min(1).max(40).required(), label: label.required(), pin: factId }))
    .min(1)
    .unique('number')
    .required(),
});

/** The shape of a board sheet. */
export const boardSchema = Joi.object({
  kind: Joi.valid('board').required(),
  schema: Joi.valid(1).required(),
  id: sheetId.required(),
  version: Joi.number().integer().min(1).required(),
  chip: label.required(),
  form: label.required(),
  title: Joi.string().min(1).max(80).required(),
  summary: words.required(),
  system: Joi.valid('bare', 'linux').required(),
  logicRail: factId.required(),
  traits: sourced({ usb: Joi.valid(...USB_CONNECTORS), words: Joi.array().items(words).min(1).max(24).unique() }),
  shape: shapeSchema,
  headers: sourcedList(header).required(),
  pins: sourcedList(pin).required(),
  controllers: sourcedList(controller).required(),
  usual: sourced({ list: Joi.array().items(usualBus).max(40).required(), oneWire: Joi.array().items(factId).min(1).max(4).unique() }),
  rails: sourcedList(rail).required(),
  electrical: electrical.required(),
  analog: sourced({
    bits: Joi.number().integer().min(4).max(24).required(),
    reference: Joi.valid('supply', 'internal').required(),
    volts: range,
    sourceOhms: quantity.greater(0),
  }),
  memory: sourced({
    ramBytes: bytes.required(),
    flashBytes: bytes.required(),
    eepromBytes: bytes.required(),
    runtimeRamBytes: bytes,
    runtimeFlashBytes: bytes,
    runtimeNote: words,
  }).required(),
  onBoard: sourced({
    list: Joi.array()
      .items(Joi.object({ what: label.required(), pin: factId.required(), note: words.required() }))
      .required(),
    parts: Joi.array().items(onBoardPart),
  }).required(),
  programPins: sourced({
    numbering: Joi.valid('gpio', 'board', 'port').required(),
    numbers: Joi.object().pattern(factId, Joi.number().integer().min(0).max(999)).min(1),
  }),
  software: sourced({
    spiHz: quantity.greater(0).required(),
    i2cHz: quantity.greater(0),
    uartBaud: quantity.greater(0),
    pwmHz: quantity.greater(0),
  }),
  microPython: sourced({}),
  radio: sourced({
    kinds: label.required(),
    blocksAdc: Joi.array().items(factId).unique().required(),
    own: Joi.object(current),
    note: words,
  }),
  enabling: sourcedList(
    Joi.object({
      controller: factId.required(),
      words: words.required(),
      lines: Joi.array().items(label.max(120)).max(6).required(),
      claims: Joi.array().items(factId).min(1).max(8).unique(),
      pins: Joi.object().pattern(factId, factId).min(1),
      selects: Joi.valid('any-own', 'first-own'),
      most: Joi.number().integer().min(1),
    }),
  ),
  chipCircuit: sourced({
    components: Joi.array().items(chipComponent).min(1).required(),
    connectors: Joi.array().items(chipConnector),
    settings: Joi.array().items(words).required(),
  }),
  unknown: Joi.array().items(words).required(),
}).required();
