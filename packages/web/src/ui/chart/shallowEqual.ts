import { isValidElement } from 'react';

function sameValue(a: unknown, b: unknown): boolean {
  if (Object.is(a, b)) return true;
  return (
    isValidElement(a) && isValidElement(b) && a.type === b.type && a.key === b.key && shallowEqual(a.props as object, b.props as object)
  );
}

/** Whether two sets of props draw the same: equal values, or elements of one type whose props are the same.
 *  An edit makes new elements for every row head; this keeps all rows but its own from being drawn again. */
export function shallowEqual(a: object, b: object): boolean {
  const keys = Object.keys(a);
  return keys.length === Object.keys(b).length && keys.every((key) => sameValue(a[key as never], b[key as never]));
}
