import { createElement, memo } from 'react';
import { sameProps } from './sameProps';

const Head = memo((_: { readonly label: string }) => null);

test('elements of one type with the same props are the same; anything else is not', () => {
  const head = (label: string) => ({ id: 'a', head: createElement(Head, { label }) });
  expect(sameProps(head('SDA'), head('SDA'))).toBe(true);
  expect(sameProps(head('SDA'), head('SCL'))).toBe(false);
  expect(sameProps(head('SDA'), { ...head('SDA'), extra: 1 })).toBe(false);
  expect(sameProps(head('SDA'), { id: 'a', head: 'SDA' })).toBe(false);
  expect(sameProps({ at: ['GP4'] }, { at: ['GP4'] })).toBe(false);
});
