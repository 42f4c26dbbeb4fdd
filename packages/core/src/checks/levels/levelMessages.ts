import { findOrThrow } from '../../collections/orThrow';
import { type LevelPair, levelPairs, type LevelVerdict } from '../../electrics/reports/levels';
import type { Condition } from '../../sheets/condition';
import { sheetsUnder } from '../../sheets/conditions';
import type { Source } from '../../sheets/source';
import { partSheet } from '../../sheets/sheetIndex';
import type { CheckContext, Data, FindingDraft, Level } from '../engine/check';
import { translateLevels } from '../fixes/levelTranslation';

/** Pairs of a part that go one way, the worst first. */
export interface Trouble {
  readonly placement: string;
  readonly way: LevelPair['way'];
  readonly pairs: readonly [LevelPair, ...LevelPair[]];
}

/** Level pairs grouped for findings: by part and direction. */
export function troubles(pairs: readonly LevelPair[], badness: (pair: LevelPair) => number): readonly Trouble[] {
  const groups = new Map<string, LevelPair[]>();
  for (const pair of pairs) groups.set(`${pair.placement} ${pair.way}`, [...(groups.get(`${pair.placement} ${pair.way}`) ?? []), pair]);
  return [...groups.values()].flatMap((group) => {
    const [first, ...rest] = group.toSorted((a, b) => badness(a) - badness(b));
    return first ? [{ placement: first.placement, way: first.way, pairs: [first, ...rest] }] : [];
  });
}

/** The same pairs with the rails as they are under a condition. */
export function pairsUnder(context: CheckContext, condition: Condition, pairs: readonly LevelPair[]): readonly LevelPair[] {
  const wanted = new Set(pairs.map((pair) => `${pair.key} ${pair.way}`));
  return levelPairs(context.plan, sheetsUnder(context.sheets, condition)).filter((pair) => wanted.has(`${pair.key} ${pair.way}`));
}

/** A finding about a part's signals that go one way. */
export function levelFinding(
  context: CheckContext,
  trouble: Trouble,
  verdict: { readonly level: Level; readonly message: string; readonly data: Data; readonly verdicts: readonly LevelVerdict[] },
): FindingDraft {
  const { placement, way, pairs } = trouble;
  const part = partSheet(context.sheets, findOrThrow(context.plan.placements, (p) => p.id === placement).sheet)?.sheet;
  const source: Source | undefined = way === 'to-part' ? part?.levels?.source : context.board.sheet.electrical.source;
  const keys = pairs.map((pair) => pair.key);
  return {
    level: verdict.level,
    message: verdict.message,
    place: { placements: [placement], view: 'levels' },
    data: { placement: { is: 'placement', id: placement }, terminals: { is: 'labels', keys }, ...verdict.data },
    ...(source ? { source } : {}),
    remedies: () => translateLevels(context, placement, keys, verdict.verdicts),
  };
}
