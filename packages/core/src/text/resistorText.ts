import { bandsOf, letterCode } from '../quantity/bands';
import { formatSi } from '../quantity/format';
import { USUAL_TOLERANCE } from '../quantity/tolerance';

/** A value with the marks to find it by.
 *  @example resistorWords(4700) // '4.7 kΩ (yellow, violet, red, gold; 4K7)' */
export function resistorText(ohms: number): string {
  const value = formatSi(ohms, 'Ω');
  try {
    return `${value} (${bandsOf(ohms, USUAL_TOLERANCE).join(', ')}; ${letterCode(ohms)})`;
  } catch {
    // A value with more digits than bands can say.
    return value;
  }
}

/** The colours of the bands of a value; none where it has more digits than bands can say. */
export function bandColours(ohms: number): readonly string[] {
  try {
    return bandsOf(ohms, USUAL_TOLERANCE);
  } catch {
    return [];
  }
}
