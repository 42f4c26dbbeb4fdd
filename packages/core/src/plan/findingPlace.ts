/** The longest place in the id of a finding, and what is kept of a longer one. */
const [LONGEST, HEAD] = [200, 180];

/** 32-bit FNV-1a, in hexadecimal: stable over runs and machines, which is sufficient here. */
function checksum(text: string): string {
  let hash = 0x811c9dc5;
  for (const letter of text) hash = Math.imul(hash ^ (letter.codePointAt(0) ?? 0), 0x01000193) >>> 0;
  return hash.toString(16);
}

/** A place as written in the id of a finding, at most 200 characters long: long ones keep their head and get a checksum. */
export const shortPlace = (whole: string): string => (whole.length <= LONGEST ? whole : `${whole.slice(0, HEAD)}-${checksum(whole)}`);

/** The place in the id of a finding: what follows its check and its message. */
export const placeOf = (finding: string): string => finding.replace(/^[^/]*\/[^/]*\//, '');

/** Whether a place may have been shortened: it does not tell all that it names. */
export const isShortPlace = (place: string): boolean => place.length > HEAD && /^-[0-9a-f]{1,8}$/.test(place.slice(HEAD));
