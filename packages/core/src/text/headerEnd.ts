/** The end of a header in a sentence. Headers with numbered pins name an end by its pin.
 *  @example headerEnd('pin 1') // 'the end with pin 1' */
export const headerEnd = (end: string): string => (end.startsWith('pin ') ? `the end with ${end}` : `the ${end}`);
