/** A text in which no line ends between a number and what it counts or measures.
 *  @example unbroken('limit 500 mA') // 'limit 500\u00a0mA' */
export const unbroken = (text: string): string => text.replace(/(?<=^|[\s(])([−-]?\d[\d.,]*) (?=\S)/g, '$1\u00a0');
