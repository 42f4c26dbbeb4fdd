import { firstOrThrow } from '../../collections/orThrow';
import { type LevelPair, levelPairs } from '../../electrics/reports/levels';
import type { Check, CheckContext, FindingDraft, Level } from '../engine/check';
import { levelFinding, pairsUnder, type Trouble, troubles } from './levelMessages';
import { LEVEL_TRANSLATION_REMEDIES } from '../fixes/levelTranslation';

const least = (pair: LevelPair): number => Math.min(pair.marginHigh, pair.marginLow);

const why =
  'Noise margin high: VOH − VIH; low: VIL − VOL, with both supplies and outputs in their worst case. Without margin a level often works on the bench and fails with another supply, another device or in the cold. Error: beyond (VIL + VIH) / 2 at nominal supplies. Warning: not guaranteed within the usual supply tolerance. Note: only at the extremes.';
const thinWhy = `${why} Less than 10 % of the supply is a low margin: long wires and switched loads can use it up.`;

/** Whether an input most likely misreads a level: its real threshold is between VIL and VIH, and the level is on the wrong side of their
 *  midpoint. */
function isMisread(pair: LevelPair): boolean {
  const middle = (pair.vihVolts + pair.vilVolts) / 2;
  return pair.highVolts < middle || pair.lowVolts > middle;
}

/** An error where the level is misread with every supply at its nominal voltage, a warning where it is not guaranteed within their usual
 *  tolerance, else a note. */
function levelOf(context: CheckContext, { pairs }: Trouble): Level {
  if (pairsUnder(context, 'nominal', pairs).some(isMisread)) return 'clash';
  return pairsUnder(context, 'usual', pairs).some((pair) => least(pair) < 0) ? 'risk' : 'hint';
}

const marginUnder = (context: CheckContext, condition: 'nominal' | 'usual', worst: LevelPair, high: boolean): number => {
  // Which pairs there are does not depend on voltages.
  const pair = firstOrThrow(pairsUnder(context, condition, [worst]));
  return high ? pair.marginHigh : pair.marginLow;
};

function finding(context: CheckContext, trouble: Trouble, level: Level, thin: '' | 'thin-'): FindingDraft {
  const [worst] = trouble.pairs;
  const high = worst.marginHigh <= worst.marginLow;
  return levelFinding(context, trouble, {
    level,
    message: `${thin}${high ? 'high' : 'low'}-${trouble.way}`,
    data: {
      gets: { is: 'volts', value: high ? worst.highVolts : worst.lowVolts },
      asks: { is: 'volts', value: high ? worst.vihVolts : worst.vilVolts },
      margin: { is: 'volts', value: least(worst) },
      nominal: { is: 'volts', value: marginUnder(context, 'nominal', worst, high) },
      usual: { is: 'volts', value: marginUnder(context, 'usual', worst, high) },
    },
    verdicts: thin ? ['damage', 'none', 'thin'] : ['damage', 'none'],
  });
}

export const levelNoMargin: Check = {
  code: 'level-no-margin',
  question: 'Do all logic levels meet the input thresholds, with noise margin, in the worst case?',
  messages: {
    'high-to-part': {
      title: 'High level too low for {placement}: VOH {gets}, VIH {asks}',
      text: 'Board drives {terminals}. Noise margin: {nominal} nominal, {usual} at usual tolerances, {margin} at the extremes.',
      why,
    },
    'low-to-part': {
      title: 'Low level too high for {placement}: VOL {gets}, VIL {asks}',
      text: 'Board drives {terminals}. Noise margin: {nominal} nominal, {usual} at usual tolerances, {margin} at the extremes.',
      why,
    },
    'high-to-board': {
      title: 'High level of {placement} too low for the board: VOH {gets}, VIH {asks}',
      text: 'At {terminals}. Noise margin: {nominal} nominal, {usual} at usual tolerances, {margin} at the extremes.',
      why,
    },
    'low-to-board': {
      title: 'Low level of {placement} too high for the board: VOL {gets}, VIL {asks}',
      text: 'At {terminals}. Noise margin: {nominal} nominal, {usual} at usual tolerances, {margin} at the extremes.',
      why,
    },
    'thin-high-to-part': {
      title: 'Low noise margin at {placement}: {margin} (high level)',
      text: 'Board drives {terminals}: VOH {gets}, VIH {asks}.',
      why: thinWhy,
    },
    'thin-low-to-part': {
      title: 'Low noise margin at {placement}: {margin} (low level)',
      text: 'Board drives {terminals}: VOL {gets}, VIL {asks}.',
      why: thinWhy,
    },
    'thin-high-to-board': {
      title: 'Low noise margin at the board: {margin} (high level of {placement})',
      text: 'At {terminals}: VOH {gets}, VIH {asks}.',
      why: thinWhy,
    },
    'thin-low-to-board': {
      title: 'Low noise margin at the board: {margin} (low level of {placement})',
      text: 'At {terminals}: VOL {gets}, VIL {asks}.',
      why: thinWhy,
    },
  },
  remedies: LEVEL_TRANSLATION_REMEDIES,
  examine(context) {
    const pairs = levelPairs(context.plan, context.sheets);
    const none = troubles(
      pairs.filter((p) => p.verdict === 'none'),
      least,
    );
    // Within one supply thin margins are as the makers of the parts meant them.
    const thin = troubles(
      pairs.filter((p) => p.verdict === 'thin' && p.crosses),
      least,
    );
    const reported = new Set(none.map((t) => `${t.placement} ${t.way}`));
    return [
      ...none.map((trouble) => finding(context, trouble, levelOf(context, trouble), '')),
      ...thin.filter((t) => !reported.has(`${t.placement} ${t.way}`)).map((trouble) => finding(context, trouble, 'hint', 'thin-')),
    ];
  },
};
