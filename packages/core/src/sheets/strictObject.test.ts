import Joi from 'joi';
import { defaulted, optional, strictObject } from './strictObject';

interface Lamp {
  readonly name: string;
  readonly volts: number;
  readonly on: boolean;
  readonly colour?: 'red' | 'green';
}

const text = Joi.string();
const volts = Joi.number();
const lamp = strictObject<Lamp>({
  name: text,
  volts: defaulted(volts, 5),
  on: Joi.boolean(),
  colour: optional(Joi.valid('red', 'green')),
});

test('fields are required, optional or have their usual value, as the type has them', () => {
  const read = (value: unknown) => lamp.validate(value);
  expect(read({ name: 'a', on: true }).value).toEqual({ name: 'a', on: true, volts: 5 });
  expect(read({ name: 'a', on: true, volts: 3, colour: 'red' }).error).toBeUndefined();
  expect(read({ on: true }).error?.message).toBe('"name" is required');
  expect(read({ name: 'a', on: true, colour: 'blue' }).error?.message).toBe('"colour" must be one of [red, green]');
  expect(read({ name: 'a', on: true, lit: true }).error?.message).toBe('"lit" is not allowed');
});

test('a schema that differs from its type does not compile', () => {
  const on = Joi.boolean();
  const colour = optional(Joi.valid('red', 'green'));
  // @ts-expect-error a field is missing
  strictObject<Lamp>({ name: text, volts: volts, on });
  // @ts-expect-error a field too many
  strictObject<Lamp>({ name: text, volts: volts, on, colour, watts: volts });
  // @ts-expect-error a number is no text
  strictObject<Lamp>({ name: volts, volts: volts, on, colour });
  // @ts-expect-error required in the type, optional in the schema
  strictObject<Lamp>({ name: optional(text), volts: volts, on, colour });
  // @ts-expect-error optional in the type, required in the schema
  strictObject<Lamp>({ name: text, volts: volts, on, colour: Joi.valid('red', 'green') });
  expect(Object.keys(lamp.describe().keys as object)).toEqual(['name', 'volts', 'on', 'colour']);
});
