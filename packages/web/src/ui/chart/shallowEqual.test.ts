import { createElement, memo } from 'react';
import { shallowEqual } from './shallowEqual';

const Head = memo((_: { readonly label: string }) => null);

test('elements of one type with the same props are the same; anything else is not', () => {
  const head = (label: string) => ({ id: 'a', head: createElement(Head, { label }) });
  expect(shallowEqual(head('SDA'), head('SDA'))).toBe(true);
  expect(shallowEqual(head('SDA'), head('SCL'))).toBe(false);
  expect(shallowEqual(head('SDA'), { ...head('SDA'), extra: 1 })).toBe(false);
  expect(shallowEqual(head('SDA'), { id: 'a', head: 'SDA' })).toBe(false);
  expect(shallowEqual({ at: ['GP4'] }, { at: ['GP4'] })).toBe(false);
});
