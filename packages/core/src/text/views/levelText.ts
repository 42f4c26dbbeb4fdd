import type { PackedModule } from '../../assign/packShifterChannels';
import { listText, placementText } from '../names';
import type { LevelPair, LevelVerdict } from '../../electrics/reports/levels';
import { LEVEL_VERDICTS } from '../../electrics/reports/levels';
import { partOf } from '../../plan/edit';
import { type Plan, splitKey } from '../../plan/plan';
import { formatSi } from '../../quantity/format';
import type { Sheets } from '../../sheets/sheetIndex';

const VERDICT_TEXT: { readonly [V in LevelVerdict]: string } = {
  damage: 'over-voltage',
  none: 'no margin',
  thin: 'low margin',
  good: 'OK',
};

/** Verdict and margin of a row.
 *  @example verdictText(pair) // '265 mV, low' */
export function verdictText({ verdict, marginHigh, marginLow }: LevelPair): string {
  const margin = formatSi(Math.max(0, Math.min(marginHigh, marginLow)), 'V');
  if (verdict === 'thin') return `${margin}, low`;
  return verdict === 'good' ? margin : VERDICT_TEXT[verdict];
}

/** Whether the row of a group says all that its sentence would. */
export const isSaidByRow = ({ pair: { verdict, assumed, way } }: LevelGroup): boolean =>
  verdict === 'good' || (verdict === 'thin' && !(assumed && way === 'to-part'));

/** Signals of one part with the same direction and verdict. */
export interface LevelGroup {
  readonly id: string;
  readonly pair: LevelPair;
  readonly labels: readonly string[];
}

/** Pairs with the same numbers of the same part as one, the worst first. */
export function levelGroups(plan: Plan, sheets: Sheets, pairs: readonly LevelPair[]): readonly LevelGroup[] {
  const groups = new Map<string, { readonly pair: LevelPair; readonly labels: string[] }>();
  for (const pair of pairs) {
    const { key: _key, ...numbers } = pair;
    const id = JSON.stringify(numbers);
    const { placement, terminal } = splitKey(pair.key);
    const label = partOf(plan, placement, sheets)?.terminals.get(terminal)?.label ?? terminal;
    const group = groups.get(id) ?? { pair, labels: [] };
    group.labels.push(label);
    groups.set(id, group);
  }
  const rank = ({ pair }: { readonly pair: LevelPair }) => LEVEL_VERDICTS.indexOf(pair.verdict);
  return [...groups]
    .map(([id, group]) => ({ id, ...group }))
    .toSorted((a, b) => rank(a) - rank(b) || Math.min(a.pair.marginHigh, a.pair.room) - Math.min(b.pair.marginHigh, b.pair.room));
}

/** "Text SDA and SCL, from the board": whose signals, and which way. */
export function groupHead(plan: Plan, { pair, labels }: LevelGroup): string {
  return `${placementText(plan, pair.placement)} ${listText(labels)} ${pair.way === 'to-part' ? '← board' : '→ board'}`;
}

/** What is wrong with a level, by how much, and what that does. */
export function levelText(plan: Plan, group: LevelGroup): string {
  const { pair, labels } = group;
  const name = placementText(plan, pair.placement);
  const taker = pair.way === 'to-part' ? name : 'the board';
  const volts = (value: number) => formatSi(Math.max(0, value), 'V');
  const where = `${name} ${listText(labels)}`;
  const assumed = pair.assumed && pair.way === 'to-part' ? ' Thresholds not in its sheet: typical CMOS values assumed.' : '';
  switch (pair.verdict) {
    case 'damage':
      return `${where}: up to ${volts(pair.mostVolts)}, ${taker} tolerates ${volts(pair.standsVolts)}. Do not apply power.${assumed}`;
    case 'none':
      return pair.marginHigh < pair.marginLow
        ? `${where}: VOH ${volts(pair.highVolts)}, VIH of ${taker} ${volts(pair.vihVolts)}. It may work on the bench and fail in the cold.${assumed}`
        : `${where}: VOL ${volts(pair.lowVolts)}, VIL of ${taker} ${volts(pair.vilVolts)}.${assumed}`;
    case 'thin':
      return `${where}: ${volts(Math.min(pair.marginHigh, pair.marginLow))} noise margin, worst case.${assumed}`;
    case 'good':
      return `${where}: ${volts(Math.min(pair.marginHigh, pair.marginLow))} noise margin, worst case.`;
  }
}

/** "74AHCT125, 3 of 4 channels, and the one that is there": the modules of a packing. */
export function moduleText(modules: readonly PackedModule[]): string {
  return listText(
    modules.map(
      ({ part, added, used }) =>
        `${added ? part.title : `the existing ${part.short}`}: ${used} of ${part.levelShifter.channels.length} channels`,
    ),
  );
}
