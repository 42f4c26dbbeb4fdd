import { firstOrThrow, orThrow } from '../../collections/orThrow';
import { has } from '../../collections/has';
import { railsFor, refeed } from '../../assign/fit/railFit';
import { i2cSegmentReports } from '../../electrics/reports/segmentReport';
import { type RailReport, type SupplyLine, railReports } from '../../electrics/reports/railReport';
import { terminalsOf } from '../../nets/terminals';
import { applyEdits } from '../../plan/applyEdits';
import type { Plan } from '../../plan/plan';
import { sheetsUnder } from '../../sheets/conditions';
import type { Sheets } from '../../sheets/sheetIndex';
import type { Check, CheckContext, Datum, FindingDraft, Level, Remedy } from '../engine/check';
import { isOver, separateSupplies } from '../fixes/separateSupply';
import { badPairs } from '../fixes/levelTranslation';

/** Number of parts with an I2C idle level that is too high. */
const tooHigh = (plan: Plan, sheets: Sheets): number =>
  [...i2cSegmentReports(plan, sheets).values()].flat().reduce((sum, { overdriven }) => sum + overdriven.length, 0);

/** The part fed from another rail that has room for it, without trouble for its signals. */
function moved(context: CheckContext, line: SupplyLine, from: string): readonly Remedy[] {
  const { plan, sheets, board } = context;
  if (line.placement === undefined || line.what !== 'part') return [];
  const supplies = terminalsOf(plan, { id: line.placement }, sheets)
    .filter(has('wire'))
    .filter((t) => t.terminal.role === 'supply.vcc' && t.wire.end.to === 'rail');
  const [supply] = supplies;
  if (!supply || supplies.length > 1 || supply.wire.locked || supply.placement.onBoard) return [];
  const [bad, high] = [badPairs(context).length, tooHigh(plan, sheets)];
  for (const rail of railsFor(board, supply.part, supply.terminal)) {
    if (rail.id === from || rail.direction === 'in') continue;
    const edits = refeed(plan, supply, supply.terminal.id, rail);
    const after = applyEdits(plan, edits, sheets);
    if (!after.ok || badPairs({ plan: after.plan, sheets }).length > bad || tooHigh(after.plan, sheets) > high) continue;
    const now = railReports(after.plan, sheets);
    if (now.some((one) => isOver(one) && (one.rail.id === from || one.rail.id === rail.id))) continue;
    return [
      {
        label: 'move',
        data: { part: { is: 'placement', id: line.placement }, rail: { is: 'rail', rail: rail.id } },
        grade: 'offered',
        edits,
      },
    ];
  }
  return [];
}

/** The part fed from a regulator or a source of its own, which comes with it. */
function separated(context: CheckContext, line: SupplyLine, from: string): readonly Remedy[] {
  const { plan, sheets } = context;
  if (line.placement === undefined || line.what !== 'part') return [];
  // Two sources of one voltage drift apart only in the extreme: that is no reason against one.
  const usual = sheetsUnder(sheets, 'usual');
  const [bad, high] = [badPairs({ plan, sheets: usual }).length, tooHigh(plan, usual)];
  return separateSupplies(plan, sheets, line.placement, from).flatMap(({ part, edits, plan: after }): Remedy[] =>
    badPairs({ plan: after, sheets: usual }).length > bad || tooHigh(after, usual) > high
      ? []
      : [
          {
            label: 'separate',
            data: { part: { is: 'placement', id: line.placement ?? '' }, supply: { is: 'parts', ids: [part.id] } },
            grade: 'offered',
            edits,
          },
        ],
  );
}

/** Fractions of a rail's maximum current above which the average overloads it and a peak matters. */
const OVERLOAD = 1.25;
const AT_THE_PEAK = 1.1;

/** A load: a part, a rail regulated from this one, or the board. */
function consumer({ placement, rail }: SupplyLine): Datum {
  if (placement !== undefined) return { is: 'placement', id: placement };
  return rail === undefined ? { is: 'words', text: 'The board itself' } : { is: 'rail', rail };
}

/** What is found for the first that anything is found for. */
function firstOf<T, U>(items: readonly T[], find: (item: T) => readonly U[]): readonly U[] {
  for (const item of items) {
    const found = find(item);
    if (found.length > 0) return found;
  }
  return [];
}

function finding(context: CheckContext, sheet: RailReport): FindingDraft {
  const { rail, lines, typicalMilliamps, peakMilliamps } = sheet;
  const budget = orThrow(rail.budgetMilliamps, 'current limit');
  const average = typicalMilliamps > budget;
  // A budget is what a rail gives safely, no absolute limit: a little more at the peak of everything together is no trouble.
  const level: Level = typicalMilliamps > budget * OVERLOAD ? 'clash' : average || peakMilliamps > budget * AT_THE_PEAK ? 'risk' : 'hint';
  const top = firstOrThrow(lines);
  return {
    level,
    message: average ? 'average' : 'peak',
    place: { view: 'supply', rails: [rail.id] },
    data: {
      rail: { is: 'rail', rail: rail.id },
      takes: { is: 'quantity', value: (average ? typicalMilliamps : peakMilliamps) / 1000, unit: 'A' },
      gives: { is: 'quantity', value: budget / 1000, unit: 'A' },
      top: consumer(top),
      most: { is: 'quantity', value: top.peakMilliamps / 1000, unit: 'A' },
    },
    source: context.board.sheet.rails.source,
    remedies: () => [
      ...lines.flatMap((line) => moved(context, line, rail.id)).slice(0, 2),
      ...firstOf(lines, (line) => separated(context, line, rail.id)),
    ],
  };
}

const why =
  'Σ Ipeak · simultaneous use of all loads ≤ limit of the rail. An overloaded supply sags and the board resets, or its regulator or fuse shuts down.';

export const supplyOver: Check = {
  code: 'supply-over',
  question: 'Is the current of every rail within its limit?',
  planWide: true,
  messages: {
    average: { title: '{rail} overloaded: {takes} average, limit {gives}', text: 'Largest load: {top}, up to {most}.', why },
    peak: {
      title: '{rail} overloaded: {takes} peak, limit {gives}',
      text: 'Largest load: {top}, {most} peak.',
      why,
    },
  },
  remedies: { move: 'Power {part} from {rail}', separate: 'Add a supply for {part}: {supply}' },
  otherwise:
    'Power the largest load from a separate supply with common ground, or enter under Power which loads are not on at the same time.',
  examine: (context) =>
    railReports(context.plan, context.sheets)
      .filter(isOver)
      .map((sheet) => finding(context, sheet)),
};
