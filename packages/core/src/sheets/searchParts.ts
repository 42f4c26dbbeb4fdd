import type { Family, PartSheet } from './partSheet';

const plain = (text: string): string => text.toLowerCase().replace(/×/g, 'x').replace(/[″"]/g, '');

/** Everything a person may type to find a part, in one line. */
function haystack(part: PartSheet): string {
  const labels = part.terminals.list.flatMap((t) => [t.label, ...(t.also ?? [])]);
  const addresses = (part.bus.devices ?? []).flatMap((d) => d.addresses.map((a) => `0x${a.address.toString(16).padStart(2, '0')}`));
  return plain([part.title, part.chip, part.family, part.summary, part.bus.kind, ...(part.words ?? []), ...labels, ...addresses].join(' '));
}

/** Parts in which every word of the query occurs, by title; all of them for an empty query.
 *  @param family only parts of this family, where given
 *  @example searchParts(parts, 'oled i2c') // the OLED modules on I2C */
export function searchParts(parts: readonly PartSheet[], query: string, family?: Family): readonly PartSheet[] {
  const words = plain(query).split(/\s+/).filter(Boolean);
  return parts
    .filter((part) => (!family || part.family === family) && words.every((word) => haystack(part).includes(word)))
    .toSorted((a, b) => a.title.localeCompare(b.title));
}
