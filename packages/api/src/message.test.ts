import Joi from 'joi';
import { message } from './message';

interface Letter {
  readonly to: string;
  readonly pages: number;
  readonly from?: string;
}

test('the fields of a type are required or optional as the type has them, and no other is taken', () => {
  const schema = message<Letter>({ to: Joi.string(), pages: Joi.number() }, { from: Joi.string() });
  const fault = (value: unknown) => schema.validate(value).error?.message;
  expect(fault({ to: 'a', pages: 1 })).toBeUndefined();
  expect(fault({ to: 'a', pages: 1, from: 'b' })).toBeUndefined();
  expect(fault({ to: 'a' })).toBe('"pages" is required');
  expect(fault({ to: 'a', pages: 1, by: 'c' })).toBe('"by" is not allowed');
});

test('a schema that differs from its type does not compile', () => {
  // @ts-expect-error one field is missing
  message<Letter>({ to: Joi.string() }, { from: Joi.string() });
  // @ts-expect-error one field too many
  message<Letter>({ to: Joi.string(), pages: Joi.number(), by: Joi.string() }, { from: Joi.string() });
  // @ts-expect-error a number is no string
  message<Letter>({ to: Joi.string(), pages: Joi.string() }, { from: Joi.string() });
  // @ts-expect-error an optional field is no required one
  message<Letter>({ to: Joi.string(), pages: Joi.number(), from: Joi.string() });
  // @ts-expect-error the optional fields are left out
  message<Letter>({ to: Joi.string(), pages: Joi.number() });
  expect(message<{ readonly only: boolean }>({ only: Joi.boolean() }).validate({}).error?.message).toBe('"only" is required');
});
