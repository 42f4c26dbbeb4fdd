import Joi from 'joi';
import { FAMILIES, SERVICES, TIES } from './partSheet';
import { ROLES } from './roles';
import { shapeSchema } from './shapeSchema';
import {
  driveFact,
  factId,
  label,
  levelFact,
  positive,
  positiveRange,
  quantity,
  range,
  regulator,
  sheetId,
  sourced,
  sourcedList,
  words,
} from './schemaParts';

/** Whole bytes in hexadecimal: a request of the line protocol has room for some of these. */
const hexBytes = Joi.string().pattern(/^([0-9a-f]{2}){1,16}$/, 'whole bytes in hexadecimal');
const ability = Joi.array().items(Joi.valid('interrupt', 'pwm')).unique();

const terminal = Joi.object({
  id: factId.required(),
  number: Joi.number().integer().min(1).required(),
  label: label.required(),
  also: Joi.array().items(label),
  role: Joi.valid(...ROLES).required(),
  direction: Joi.valid('in', 'out', 'both', 'passive').required(),
  need: Joi.valid('needed', 'optional').required(),
  ties: Joi.array()
    .items(Joi.valid(...TIES))
    .unique(),
  requires: ability,
  prefers: ability,
  pwmHz: range,
  idle: Joi.valid('high', 'low'),
  acts: Joi.valid('high', 'low'),
  ifOpen: Joi.object({ note: words.required(), with: factId, wired: words }),
  outputs: Joi.valid('push-pull', 'open-drain'),
  chain: Joi.valid('in', 'out'),
  line: Joi.valid('data-command', 'reset', 'clock'),
  serves: Joi.array()
    .items(Joi.valid(...SERVICES))
    .min(1)
    .unique(),
  channel: Joi.object({ number: Joi.number().integer().min(0).max(63).required(), line: Joi.valid('sda', 'scl').required() }),
  volts: range,
  led: Joi.object({ forwardVolts: positiveRange }),
  digit: Joi.valid(true),
  coil: Joi.object({ other: factId.required() }),
  loadMilliamps: quantity.greater(0),
  sourceOhms: quantity.greater(0),
  bias: Joi.object({ belowSupplyVolts: positiveRange.required(), trimmerOhms: positive.required() }),
  seriesOhms: positive,
  pullDownOhms: positive,
  through: words,
  note: words,
});

const strap = Joi.object({
  id: factId.required(),
  by: Joi.valid('terminal', 'jumper').required(),
  terminal: factId.when('by', { is: 'terminal', then: Joi.required(), otherwise: Joi.forbidden() }),
  states: Joi.array()
    .items(Joi.object({ id: factId.required(), words: words.required(), tie: Joi.valid(...TIES) }))
    .min(2)
    .unique('id')
    .required(),
  default: factId.required(),
  maxVolts: quantity,
});

/** 7-bit; 0x00 to 0x07 and 0x78 to 0x7F are reserved, yet some parts can be strapped there. */
const address = Joi.number()
  .integer()
  .min(0)
  .max(0x7f)
  .error((errors) => {
    for (const error of errors)
      if (error.code === 'number.max' && typeof error.value === 'number' && error.value <= 0xff)
        error.message = `must be a 7-bit address: ${error.value} (0x${error.value.toString(16).toUpperCase()}) is the 8-bit form of ${error.value >> 1} (0x${(error.value >> 1).toString(16).toUpperCase().padStart(2, '0')})`;
    return errors as unknown as Joi.ValidationErrorItem;
  });

const device = Joi.object({
  id: factId.required(),
  chip: label.required(),
  linux: words,
  how: Joi.valid('fixed', 'strap', 'order-code', 'program', 'stored').required(),
  alsoAnswers: Joi.array().items(Joi.object({ address: address.required(), note: words.required() })),
  movable: Joi.object({ min: address.required(), max: address.required(), by: words.required() }),
  addresses: Joi.array()
    .items(
      Joi.object({
        address: address.required(),
        straps: Joi.object().pattern(factId, factId).required(),
        reserved: words,
      }),
    )
    .min(1)
    .unique('address')
    .required(),
  maxHz: positive.required(),
  clockStretching: Joi.valid(true, false, 'optional').required(),
});

const bus = sourced({
  kind: Joi.valid('i2c', 'spi', 'uart', 'private', 'none').required(),
  protocol: words,
  straps: Joi.array().items(strap).unique('id'),
  devices: Joi.array().items(device).unique('id').when('kind', { is: 'i2c', then: Joi.required(), otherwise: Joi.forbidden() }),
  modes: Joi.array().items(Joi.valid(0, 1, 2, 3)),
  maxWriteHz: positive,
  linux: words,
  maxReadHz: positive,
  fixedHz: quantity.greater(0),
  clockPoints: Joi.array().items(Joi.object({ volts: positive.required(), maxHz: positive.required() })),
  modeTies: Joi.array().items(
    Joi.object({ terminal: factId.required(), tie: Joi.valid('ground', 'supply').required(), note: words.required() }),
  ),
  hasSelect: Joi.boolean(),
  selectLatches: Joi.boolean(),
  chainBits: Joi.number().integer().min(1),
  releasesDataOut: Joi.boolean(),
  further: Joi.array()
    .items(
      Joi.object({
        id: factId.required(),
        chip: label.required(),
        select: factId.required(),
        terminals: Joi.array().items(factId).min(1),
        modes: Joi.array()
          .items(Joi.valid(0, 1, 2, 3))
          .min(1)
          .required(),
        maxHz: positive.required(),
        linux: words,
      }),
    )
    .unique('id')
    .min(1),
  note: words,
});

const supply = sourced({
  volts: positiveRange.required(),
  absoluteMaxVolts: positive.max(100),
  typicalMilliamps: quantity.required(),
  peakMilliamps: quantity.min(Joi.ref('typicalMilliamps')).required(),
  regulator: Joi.boolean().required(),
  unit: words,
  capacitors: Joi.array()
    .items(Joi.object({ farads: quantity.greater(0).required(), at: words.required(), terminal: factId }))
    .min(1)
    .max(4),
  mustMatchLogic: Joi.boolean(),
  note: words,
});

const pullUp = Joi.object({
  terminals: Joi.array().items(factId).min(1).required(),
  ohms: quantity.greater(0).required(),
  to: Joi.valid('supply', 'regulated').required(),
  from: factId.when('to', { is: 'regulated', then: Joi.forbidden() }),
  cut: Joi.valid('jumper', 'resistor').required(),
});

const count = Joi.number().integer().min(1);

/** The shape of a part sheet. */
export const partSchema = Joi.object({
  kind: Joi.valid('part').required(),
  schema: Joi.valid(1).required(),
  id: sheetId.required(),
  version: Joi.number().integer().min(1).required(),
  chip: label.required(),
  family: Joi.valid(...FAMILIES).required(),
  title: Joi.string().min(1).max(80).required(),
  short: label.required(),
  summary: words.required(),
  variantOf: sheetId,
  size: label,
  shape: shapeSchema,
  words: Joi.array().items(label),
  terminals: sourcedList(terminal).required(),
  bus: bus.required(),
  supply,
  levels: sourced({
    vihMin: levelFact,
    vilMax: levelFact,
    volMax: driveFact,
    vohMin: driveFact,
    logicVolts: positiveRange,
    tolerantVolts: quantity.max(60),
    outputs: Joi.valid('push-pull', 'open-drain'),
    schmitt: Joi.valid(true),
    note: words,
  }),
  drive: sourced({ milliamps: quantity.greater(0).required(), totalMilliamps: quantity.greater(0).required() }),
  module: sourced({
    pullUps: Joi.array().items(pullUp),
    passives: Joi.array().items(words).required(),
    levelShift: Joi.object({ terminals: Joi.array().items(factId).min(1).required(), how: words.required() }),
  }).required(),
  sinks: sourced({
    channels: Joi.array()
      .items(Joi.object({ input: factId.required(), output: factId.required() }))
      .min(1)
      .max(32)
      .required(),
    milliamps: quantity.greater(0).required(),
    totalMilliamps: quantity.greater(0).required(),
    dropVolts: range.required(),
    clamp: factId,
  }),
  multiplex: sourced({
    segments: Joi.array().items(factId).min(1).max(32).unique().required(),
    digits: Joi.array().items(factId).min(1).max(32).unique().required(),
    common: Joi.valid('anode', 'cathode').required(),
    fewDigitsMilliamps: Joi.array().items(quantity.greater(0)).min(1).max(8),
  }),
  supplies: sourcedList(
    Joi.object({
      output: factId.required(),
      volts: positiveRange.required(),
      maxMilliamps: quantity.greater(0).required(),
      regulator,
    }),
  ),
  currentSet: sourced({
    terminal: factId,
    fixedOhms: positive,
    segments: count.min(1).required(),
    ownMilliamps: quantity,
    usualMilliamps: quantity.greater(0).required(),
    usualVolts: quantity.greater(0).required(),
    ledVolts: Joi.array().items(quantity.greater(0)).min(1).max(12).required(),
    rows: Joi.array()
      .items(
        Joi.object({
          milliamps: quantity.greater(0).required(),
          kiloohms: Joi.array().items(quantity.greater(0)).min(1).max(12).required(),
        }),
      )
      .min(2)
      .max(20)
      .required(),
  }).xor('terminal', 'fixedOhms'),
  levelShifter: sourced({
    kind: Joi.valid('mosfet', 'auto', 'buffer', 'drive').required(),
    drives: Joi.valid('up', 'down').when('kind', { is: 'drive', then: Joi.required(), otherwise: Joi.forbidden() }),
    low: factId.required(),
    high: factId.required(),
    channels: Joi.array()
      .items(Joi.object({ low: factId.required(), high: factId.required() }))
      .min(1)
      .max(32)
      .required(),
    ohms: quantity.greater(0),
    thresholdVolts: range.when('kind', { is: Joi.valid('buffer', 'drive'), then: Joi.forbidden(), otherwise: Joi.required() }),
  }),
  memory: sourced({ frameBufferBytes: count.required(), required: Joi.boolean().required(), format: words.required() }),
  readout: sourced({
    columns: count.required(),
    rows: count.required(),
    unit: Joi.valid('pixels', 'characters', 'digits').required(),
    shape: words.required(),
    colons: Joi.array().items(count.min(1)).min(1).unique(),
  }),
  polarity: sourced({
    forwardVolts: positiveRange.required(),
    maxMilliamps: quantity.required(),
    kind: words.required(),
    common: Joi.valid('anode', 'cathode'),
  }),
  access: sourced({
    what: Joi.valid('reading', 'frame', 'text').required(),
    perSecond: quantity.max(10_000).required(),
    transfers: Joi.array()
      .items(
        Joi.object({
          times: Joi.number().integer().min(1).max(100_000).required(),
          write: Joi.number().integer().min(0).max(1_000_000).required(),
          read: Joi.number().integer().min(0).max(1_000_000).required(),
        }),
      )
      .min(1)
      .required(),
    stretchMicroseconds: quantity.max(1e6),
    note: words,
  }),
  keys: sourced({
    count: Joi.number().integer().min(1).max(64).required(),
    as: Joi.valid('wires', 'ladder', 'matrix').required(),
    diodes: Joi.boolean(),
    leadTo: Joi.valid('ground', 'supply'),
  }),
  encoder: sourced({ phases: Joi.array().items(factId).length(2).required(), bounceMilliseconds: quantity.max(100).required() }),
  trial: sourced({
    send: Joi.array().items(hexBytes).min(1).max(4).required(),
    wake: Joi.valid(true),
    each: Joi.valid(true),
    reply: Joi.object({ after: Joi.number().integer().min(0).max(30).required(), byte: Joi.number().integer().min(0).max(254).required() }),
    see: words,
    undo: Joi.array().items(hexBytes).min(1).max(4),
  }).xor('reply', 'see'),
  firstLight: sourced({ see: words.required(), causes: Joi.array().items(words).required() }).required(),
  twins: Joi.array()
    .items(Joi.object({ what: words.required(), tell: words.required() }))
    .required(),
  unknown: Joi.array().items(words).required(),
}).required();
