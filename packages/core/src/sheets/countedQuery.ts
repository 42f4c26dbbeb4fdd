import { atOrThrow } from '../collections/orThrow';
/** The most parts that are added at once. */
export const MOST_AT_ONCE = 32;

/** A number before a part: "8 × red LED", "8x led", "3 * button".
 *  @example countedQuery('8 × red led') // { count: 8, rest: 'red led' } */
export function countedQuery(text: string): { readonly count: number; readonly rest: string } {
  const found = /^\s*(\d{1,2})\s*[x×*]\s*(?=\D)(.*)$/iu.exec(text);
  const count = Number(found?.[1] ?? 1);
  return found && count >= 1 ? { count: Math.min(count, MOST_AT_ONCE), rest: atOrThrow(found, 2) } : { count: 1, rest: text };
}
