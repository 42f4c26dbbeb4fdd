import { firstOrThrow, lastOrThrow } from '../collections/orThrow';
import { formatAddress } from '../quantity/format';
import type { PartSheet } from '../sheets/partSheet';
import type { Candidate, Clues } from './identify';

/** Candidates so near to the first that the clues do not part them. */
const NEAR = 0.08;

function groups(parts: readonly PartSheet[], by: (part: PartSheet) => string): ReadonlyMap<string, readonly PartSheet[]> {
  const found = new Map<string, PartSheet[]>();
  for (const part of parts) found.set(by(part), [...(found.get(by(part)) ?? []), part]);
  return found;
}

const addresses = (part: PartSheet): readonly number[] =>
  (part.bus.devices ?? []).flatMap((device) => device.addresses.map((a) => a.address)).sort((a, b) => a - b);

/** "0x3C or 0x3D: OLED 128×64" */
function addressLine(part: PartSheet): string {
  const own = addresses(part);
  const said =
    own.length > 2 ? `${formatAddress(firstOrThrow(own))} to ${formatAddress(lastOrThrow(own))}` : own.map(formatAddress).join(' or ');
  return `${said || 'no address'}: ${part.title}`;
}

/** Questions whose answers part the first candidates: what to count, measure, read or scan.
 *  @returns sentences, the easiest to answer first; none where one candidate leads clearly */
export function narrowDown(candidates: readonly Candidate[], clues: Clues): readonly string[] {
  const first = candidates[0];
  if (!first) return [];
  const near = candidates.filter((c) => first.score - c.score <= NEAR).map((c) => c.part);
  if (near.length < 2) return [];
  const questions: string[] = [];
  const counts = groups(near, (part) => String(part.terminals.list.length));
  if (!clues.pins && counts.size > 1) questions.push(`Count the pins: ${[...counts.keys()].join(' or ')}.`);
  const sizes = groups(near, (part) => part.size ?? '');
  if (!clues.size && sizes.size > 1 && near.some((part) => part.size))
    questions.push(`Measure the size: ${[...sizes.keys()].filter(Boolean).join('; ')}.`);
  const chips = groups(near, (part) => part.chip);
  if (!clues.chip && chips.size > 1) questions.push(`Read the chip marking: ${[...chips.keys()].join(', ')}.`);
  if (near.some((part) => addresses(part).length > 0) && groups(near, (part) => addresses(part).join()).size > 1)
    questions.push(`Scan the I2C bus: ${near.map(addressLine).join('; ')}.`);
  return questions;
}
