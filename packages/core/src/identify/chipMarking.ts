import { memoizeByObject } from '../memo/memoizeByObject';
import type { PartSheet } from '../sheets/partSheet';
import { plainLabel } from './labelForms';

/** The chips of a part, each by its name alone. */
const chipsOf = memoizeByObject((part: PartSheet): readonly string[] => {
  const names = [part.chip, ...(part.bus.devices ?? []).map(({ chip }) => chip), ...(part.bus.further ?? []).map(({ chip }) => chip)];
  const words = names.flatMap((name) => [name, ...name.split(/[\s,;/()]+/)]);
  return [...new Set(words.map(plainLabel))].filter((name) => name.length >= 3 && /\d/.test(name));
});

/** The longest chip name of all parts that a marking begins with: what follows is the package and the grade. */
function stemOf(parts: readonly PartSheet[], marking: string): string {
  let stem = '';
  for (const part of parts) for (const chip of chipsOf(part)) if (chip.length > stem.length && marking.startsWith(chip)) stem = chip;
  return stem;
}

/** How well a chip marking fits each part, from 0 to 1. A marking names one version: PCF8574AT is a PCF8574A and no PCF8574.
 *  @example markingFits(parts, 'PCF8574AT')(backpackWithPcf8574a) // 1 */
export function markingFits(parts: readonly PartSheet[], text: string): (part: PartSheet) => number {
  const marking = plainLabel(text);
  const stem = stemOf(parts, marking);
  return (part) => {
    const chips = chipsOf(part);
    if (chips.some((chip) => chip === marking || (stem !== '' && chip === stem))) return 1;
    // A name cut short may be any of those that go on from it; a shorter name than the marking's is another version.
    if (chips.some((chip) => marking.length >= 3 && (chip.startsWith(marking) || (chip.includes(marking) && stem === '')))) return 0.8;
    return chips.some((chip) => marking.startsWith(chip)) ? 0.3 : 0;
  };
}
