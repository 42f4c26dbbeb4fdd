import { findOrThrow } from '../../collections/orThrow';
import { strapEdits } from '../../assign/addresses/strapEdits';
import { addressesOf, type DeviceAddress, isReserved } from '../../nets/addresses';
import type { Placement, WireEnd } from '../../plan/plan';
import type { PartSheet } from '../../sheets/partSheet';
import { partSheetOrThrow } from '../../sheets/sheetIndex';
import type { CheckContext, Datum, Remedy } from '../engine/check';
import { endDatum } from '../fixes/remedyParts';

type Claim = DeviceAddress;

/** An address on which a device answers besides its own. */
export interface AlsoAnswer {
  readonly claim: DeviceAddress;
  readonly address: number;
  readonly note: string;
}

/** Every address on which one of these parts answers besides its own. */
export function alsoAnswersOf(context: CheckContext, members: readonly Placement[]): readonly AlsoAnswer[] {
  return members
    .flatMap((m) => addressesOf(context.plan, m, context.sheets))
    .flatMap((claim) => (claim.device.alsoAnswers ?? []).map(({ address, note }) => ({ claim, address, note })));
}

/** Every address to which one of these parts responds, not available to others. */
export const takenBy = (context: CheckContext, members: readonly Placement[]): ReadonlySet<number> =>
  new Set([
    ...members.flatMap((m) => addressesOf(context.plan, m, context.sheets).map((a) => a.address)),
    ...alsoAnswersOf(context, members).map((also) => also.address),
  ]);

/** Where a strap's wire goes: an end on the board, or a line of the part's own by its label. */
const strapDatum = (part: PartSheet, end: WireEnd): Datum =>
  end.to === 'terminal' ? { is: 'words', text: findOrThrow(part.terminals.list, (t) => t.id === end.terminal).label } : endDatum(end);

/** Straps of one device that select an unused address: the first such choice in sheet order. */
export function moveStrap(context: CheckContext, claim: Claim, taken: ReadonlySet<number>): readonly Remedy[] {
  const placement = findOrThrow(context.plan.placements, (p) => p.id === claim.placement);
  const part = partSheetOrThrow(context.sheets, placement.sheet).sheet;
  for (const row of claim.device.addresses) {
    if (taken.has(row.address) || isReserved(row)) continue;
    const edits = strapEdits(context, { placement, part }, row.straps);
    if (!edits || edits.length === 0) continue;
    const how = edits
      .map((edit) => (edit.kind === 'wire' ? edit.terminal : edit.kind === 'strap' ? `${edit.strap} ${edit.state}` : ''))
      .join(', ');
    const wire = edits.find((edit) => edit.kind === 'wire');
    const to = wire && strapDatum(part, wire.end);
    return [
      {
        label: to ? 'strap-wire' : 'strap-jumper',
        data: {
          placement: { is: 'placement', id: placement.id },
          how: { is: 'words', text: how },
          ...(to ? { to } : {}),
          address: { is: 'address', value: row.address },
        },
        grade: 'safe',
        edits,
      } satisfies Remedy,
    ];
  }
  return [];
}
