import { sheetJsonSchema } from '@roof-chart/core/sheets/jsonSchema';
import { blankOf, type Json, type Shape, shapeAt, shapeName, stepsOf } from './sheetShape';

const part = sheetJsonSchema('part') as Shape;
const levels = part.properties!['levels']!.properties!;

test('a blank has what is required, and the first word where only some are allowed', () => {
  const terminal = (part.properties!['terminals']!.properties!['list']!.items as Shape | undefined)!;
  expect(blankOf(terminal)).toEqual({ id: '', number: 0, label: '', role: 'i2c.sda', direction: 'in', need: 'needed' });
  expect(blankOf(part.properties!['supply']!)).toMatchObject({ volts: { min: 0, max: 0 }, regulator: false, source: { document: '' } });
  expect([blankOf({ type: 'array' }), blankOf({ type: 'boolean' }), blankOf({ type: 'integer' })]).toEqual([[], false, 0]);
});

test('of several shapes the one is found that the value has', () => {
  const level = levels['vihMin']!.anyOf!;
  expect(level.map(shapeName)).toEqual(['Fraction of the supply', 'Voltage, V']);
  expect([shapeAt(level, { volts: 2 }), shapeAt(level, { ratio: 0.7 }), shapeAt(level, {})]).toEqual([1, 0, 0]);
  const board = sheetJsonSchema('board') as Shape;
  const controller = board.properties!['controllers']!.properties!['list']!.items as Shape;
  const legal = controller.properties!['legal']!.anyOf!;
  expect(legal.map(shapeName)).toEqual(['membership', 'sets', 'any pin']);
  expect(shapeAt(legal, { rule: 'sets', sets: [] })).toBe(1);
  // Without a word of its own a shape is named by the label of its first member, or by its key; with no member by nothing.
  const plain: readonly Shape[] = [
    {},
    { properties: { 'any-pin': {} } },
    { properties: { a: { title: 'First' }, b: { enum: ['one-word'] } } },
  ];
  expect(plain.map(shapeName)).toEqual(['', 'any pin', 'one word']);
});

test('a fault’s path leads into the document by key, place or id', () => {
  const document: Json = {
    pins: {
      list: [
        { id: 'GP0', label: 'a' },
        { id: 'GP1', label: '' },
      ],
    },
    bus: { straps: [{ id: 'A0' }] },
  };
  expect(stepsOf(document, 'pins.list.1.label')).toEqual(['pins', 'list', 1, 'label']);
  expect(stepsOf(document, 'pins.GP1')).toEqual(['pins', 'list', 1]);
  expect(stepsOf(document, 'bus.straps.A0')).toEqual(['bus', 'straps', 0]);
  expect(stepsOf(document, 'pins.GP9')).toEqual(['pins', 'list']);
  expect(stepsOf(document, 'nowhere.at.all')).toEqual(['nowhere']);
});
