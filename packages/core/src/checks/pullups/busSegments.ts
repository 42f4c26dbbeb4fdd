import { addedPullUp } from '../../electrics/reports/busInputs';
import { busPullUps, type PullUp } from '../../electrics/formulas/busPullUps';
import { bestAdded } from '../../electrics/formulas/bestAdded';
import { I2C_STANDARD } from '../../electrics/formulas/i2cModes';
import { i2cSegmentReports, overdrivenBy, type SegmentReport, withoutPullUps } from '../../electrics/reports/segmentReport';
import type { Bus } from '../../nets/buses';
import { terminalsOf } from '../../nets/terminals';
import { applyEdits } from '../../plan/applyEdits';
import type { Edit } from '../../plan/edit';
import { valuesWithin } from '../../quantity/series';
import { PIN_ROLES } from '../../sheets/roles';
import { partSheet } from '../../sheets/sheetIndex';
import type { Source } from '../../sheets/source';
import type { Condition } from '../../sheets/condition';
import type { CheckContext, Datum, Place, Remedy } from '../engine/check';
import { mildest } from '../engine/severity';

/** The subject of I2C line checks: a bus with a controller, and one of its segments. */
export interface BusSegment {
  readonly bus: Bus & { readonly controller: string };
  readonly report: SegmentReport;
}

/** The mildest supply condition under which something holds for a segment. Milder conditions lie within the extreme ones: what does not
 *  hold there holds nowhere. */
export const conditionOfSegment = (
  context: CheckContext,
  { bus, report }: BusSegment,
  isSo: (report: SegmentReport) => boolean,
): Condition =>
  isSo(report)
    ? mildest(context, ({ plan, sheets }) =>
        (i2cSegmentReports(plan, sheets).get(bus.id) ?? []).some((one) => one.segment.id === report.segment.id && isSo(one)),
      )
    : 'extreme';

/** Source of the I2C line limits. */
export const I2C_SOURCE: Source = { document: I2C_STANDARD, trust: 'standard' };

/** Every segment with both lines of every I2C bus with a controller. */
export function busSegmentsOf({ plan, sheets, buses }: CheckContext): readonly BusSegment[] {
  const known = i2cSegmentReports(plan, sheets);
  return buses.flatMap((bus) => (known.get(bus.id) ?? []).map((report) => ({ bus: bus as Bus & { readonly controller: string }, report })));
}

/** The place of a segment: unchanged when parts are added or removed, so that accepted findings stay accepted. */
export function segmentPlace({ bus, report }: BusSegment): Place {
  const { via } = report.segment;
  const pins = Object.values(bus.pins);
  if (!via) return { pins, bus: bus.controller };
  const { placement, channel } = via;
  return { placements: [placement.id], pins, bus: bus.controller, ...(channel === undefined ? {} : { channel }) };
}

/** A bus segment as a datum of a finding. */
export function segmentDatum({ bus, report }: BusSegment): Datum {
  const { via } = report.segment;
  return {
    is: 'segment',
    controller: bus.controller,
    ...(via ? { behind: via.placement.id } : {}),
    ...(via?.channel === undefined ? {} : { channel: via.channel }),
  };
}

/** A bus member as a datum of a finding. */
export const who = (id: string | undefined): Datum => ({ is: 'member', id });

const settingsEdit = ({ report }: BusSegment, context: CheckContext, addedOhms: number | undefined): Edit => {
  const { addedOhms: _before, ...others } = context.plan.busSettings[report.segment.id] ?? {};
  const settings = { ...others, ...(addedOhms === undefined ? {} : { addedOhms }) };
  return { kind: 'bus-settings', segment: report.segment.id, settings: Object.keys(settings).length > 0 ? settings : null };
};

/** "Add 4.7 kΩ": one resistor on each line of a segment. */
export function addResistor(context: CheckContext, segment: BusSegment, ohms: number | undefined): readonly Remedy[] {
  if (ohms === undefined) return [];
  return [
    {
      label: 'add',
      data: { ohms: { is: 'quantity', value: ohms, unit: 'Ω' } },
      grade: 'offered',
      edits: [settingsEdit(segment, context, ohms)],
    },
  ];
}

/** Whether a segment is OK after edits: pull-ups of both lines within limits, idle level tolerated by all devices. */
export function wellAfter({ plan, sheets }: CheckContext, { bus, report }: BusSegment, edits: readonly Edit[]): boolean {
  const after = applyEdits(plan, edits, sheets);
  const then = after.ok
    ? i2cSegmentReports(after.plan, sheets)
        .get(bus.id)
        ?.find(({ segment }) => segment.id === report.segment.id)
    : undefined;
  return then !== undefined && then.pullUps.verdict === 'good' && then.overdriven.length === 0;
}

/** Removes the added resistor, if the segment is then OK. */
export function takeAdded(context: CheckContext, segment: BusSegment): readonly Remedy[] {
  const edits = [settingsEdit(segment, context, undefined)];
  if (!segment.report.input.pullUps.some((p) => p.id === 'added') || !wellAfter(context, segment, edits)) return [];
  return [{ label: 'take-added', data: {}, grade: 'offered', edits }];
}

/** Disconnects the pull-ups of a part on an I2C line: those on its module and added resistors. */
function cutEdits({ plan, sheets }: CheckContext, id: string): readonly Edit[] {
  const placement = plan.placements.find((p) => p.id === id);
  const module = placement && !placement.pullUpsCut && partSheet(sheets, placement.sheet)?.sheet.module.pullUps?.length;
  const placed = terminalsOf(plan, { id }, sheets).filter(
    ({ key, terminal }) => plan.pulls[key]?.to === 'supply' && PIN_ROLES[terminal.role]?.line?.kind === 'i2c',
  );
  return [
    ...(module ? [{ kind: 'cut-pull-ups' as const, placement: id, cut: true }] : []),
    ...placed.map(({ terminal }): Edit => ({ kind: 'pull', placement: id, terminal: terminal.id, pull: null })),
  ];
}

/** Disconnects the pull-ups of these parts, with one added resistor if the rest is too weak; none if that does not help either. */
export function cutFor(context: CheckContext, segment: BusSegment, ids: readonly string[]): readonly Remedy[] {
  const { input, limits } = segment.report;
  const cut = ids.flatMap((id) => cutEdits(context, id));
  if (cut.length === 0) return [];
  const parts = { parts: { is: 'placements', ids } as const };
  if (wellAfter(context, segment, cut)) return [{ label: 'cut', data: parts, grade: 'offered', edits: cut }];
  const rest = withoutPullUps(input, ids);
  // Pull-ups within limits and idle level tolerated.
  const isWell = (pullUps: readonly PullUp[]) => {
    return busPullUps({ ...rest, pullUps }).verdict === 'good' && overdrivenBy(limits, pullUps).length === 0;
  };
  const others = rest.pullUps.filter((p) => p.id !== 'added');
  const rail = limits.find((limit) => limit.id === 'board')?.feed.rail;
  const ohms = bestAdded(valuesWithin(context.plan.valuesOnHand, 330, 100_000), (value) => ({
    verdict: isWell([...others, addedPullUp(value, { volts: rest.vdd, ...(rail === undefined ? {} : { rail }) })]) ? 'good' : 'other',
  }));
  if (ohms === undefined) return [];
  const edits = [...cut, settingsEdit(segment, context, ohms)];
  if (!wellAfter(context, segment, edits)) return [];
  return [{ label: 'cut-and-add', data: { ...parts, ohms: { is: 'quantity', value: ohms, unit: 'Ω' } }, grade: 'offered', edits }];
}
