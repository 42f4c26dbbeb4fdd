import { atOrThrow } from '../collections/orThrow';
import { addressOptions } from '../assign/addresses/addressOptions';
import { strapEdits } from '../assign/addresses/strapEdits';
import { busClock } from '../electrics/reports/busClock';
import { busUsers, type ClockLimit } from '../electrics/reports/busInputs';
import { type BusTime, busTime } from '../electrics/formulas/i2cTime';
import { type SegmentReport, segmentReports } from '../electrics/reports/segmentReport';
import type { Worked } from '../electrics/formulas/working';
import { addressesOf } from '../nets/addresses';
import type { Bus } from '../nets/buses';
import { openChannels } from '../nets/channels';
import { segmentsOf } from '../nets/segments';
import { boardOf, boardOrThrow, type Edit } from '../plan/edit';
import type { Placement, Plan } from '../plan/plan';
import { partSheetOrThrow, type Sheets } from '../sheets/sheetIndex';

export interface AddressRow {
  readonly placement: string;
  /** Addresses that it answers on now, by its straps. */
  readonly now: readonly number[];
  /** Addresses that it answers on besides, whatever its straps say. */
  readonly also: readonly number[];
  /** What it could be given, each with the edits that do it. */
  readonly options: readonly { readonly addresses: readonly number[]; readonly edits: readonly Edit[] }[];
  /** Addresses it can be given, what it has now among them, in rising order: those that its straps move. */
  readonly steps: readonly number[];
  /** Addresses with a conflict. */
  readonly shared: readonly number[];
  /** The channel that it is behind, as the id of its segment. */
  readonly channel?: string;
}

/** Everything that is known of one I2C bus of a plan. */
export interface I2cReport {
  readonly bus: Bus;
  readonly addresses: readonly AddressRow[];
  /** The segment at the board's pins first. */
  readonly segments: readonly [SegmentReport, ...SegmentReport[]];
  readonly limits: readonly ClockLimit[];
  readonly time: Worked<BusTime>;
  /** Members without facts on their traffic. */
  readonly unknown: readonly string[];
}

function addressRows(plan: Plan, sheets: Sheets, bus: Bus): readonly AddressRow[] {
  const board = boardOrThrow(plan, sheets);
  const placed = segmentsOf(plan, sheets, bus).flatMap(({ via, id, members }) =>
    members.map((member) => ({ member, channel: via?.by === 'channel' ? id : undefined })),
  );
  const claims = placed.map(({ member }) => addressesOf(plan, member, sheets).map((a) => a.address));
  // A part behind an open channel meets those before the multiplexer and those on its channel, not those on another.
  const heard = [bus.members, ...openChannels(plan, sheets, bus.members).map(({ before, behind }) => [...before, ...behind])];
  const meets = (a: Placement, b: Placement) => heard.some((parts) => parts.includes(a) && parts.includes(b));
  const sharedBy = (at: number, address: number) =>
    placed.some((other, n) => n !== at && atOrThrow(claims, n).includes(address) && meets(atOrThrow(placed, at).member, other.member));
  return placed.map(({ member, channel }, at): AddressRow => {
    const part = partSheetOrThrow(sheets, member.sheet).sheet;
    const besides = (part.bus.devices ?? []).flatMap((d) => (d.alsoAnswers ?? []).map((also) => also.address));
    const options = addressOptions({ plan, board }, { placement: member, part }).flatMap(({ addresses, straps }) => {
      const edits = strapEdits({ plan, board }, { placement: member, part }, straps) ?? [];
      return edits.length > 0 ? [{ addresses: addresses.filter((a) => !besides.includes(a)), edits }] : [];
    });
    const now = atOrThrow(claims, at);
    // A device with a fixed address has it in every setting: there is nothing to step.
    const settings = [now, ...options.map((option) => option.addresses)];
    const steps = [...new Set(settings.flat())].filter((address) => settings.some((one) => !one.includes(address)));
    return {
      placement: member.id,
      now,
      also: besides,
      options,
      steps: steps.toSorted((a, b) => a - b),
      shared: now.filter((address) => sharedBy(at, address)),
      ...(channel === undefined ? {} : { channel }),
    };
  });
}

/** The sheet of one I2C bus. Undefined where the plan's board is not known. */
export function i2cReport(plan: Plan, sheets: Sheets, bus: Bus): I2cReport | undefined {
  const board = boardOf(plan, sheets);
  if (!board) return undefined;
  const { users, unknown } = busUsers(plan, sheets, bus);
  const clock = busClock(plan, sheets, bus);
  return {
    bus,
    addresses: addressRows(plan, sheets, bus),
    segments: segmentReports(plan, sheets, board, bus),
    limits: clock.limits,
    time: busTime(clock.hz, users),
    unknown,
  };
}
