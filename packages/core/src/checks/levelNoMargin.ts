import { type LevelPair, levelPairs } from '../electrics/levels';
import type { Check, CheckContext, FindingDraft, Level } from './check';
import { levelFinding, pairsUnder, type Trouble, troubles } from './levelMessages';
import { ACROSS_REMEDIES } from './waysAcross';

const least = (pair: LevelPair): number => Math.min(pair.marginHigh, pair.marginLow);

const why =
  'Margin of the high level: VOH − VIH; of the low level: VIL − VOL; both where supplies and outputs are at their worst together. Without margin a level is a guess: it often works on the bench, and fails with another supply, another part of the kind, or in the cold. An error where a level is on the wrong side of the middle between both thresholds with every supply at its nominal voltage; a warning where it is not guaranteed within the usual tolerance of supplies; a note where only their extremes take the margin away.';
const thinWhy = `${why} Less than a tenth of the supply is thin: long wires and switched loads eat that much.`;

/** Whether an input most likely takes a high for a low, or a low for a high: its threshold is somewhere between what is asked for the two,
 *  and the level is on the wrong side of the middle. */
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
  const pair = pairsUnder(context, condition, [worst])[0]!;
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
  question: 'Is every high a high and every low a low, with margin, at the worst corner of both supplies?',
  messages: {
    'high-to-part': {
      title: '{placement} gets {gets} for a high and asks {asks}',
      text: 'From the board, on {terminals}. Margin: {nominal} nominal, {usual} usual, {margin} at the extremes.',
      why,
    },
    'low-to-part': {
      title: '{placement} gets {gets} for a low and takes {asks}',
      text: 'From the board, on {terminals}. Margin: {nominal} nominal, {usual} usual, {margin} at the extremes.',
      why,
    },
    'high-to-board': {
      title: 'The board gets {gets} for a high of {placement} and asks {asks}',
      text: 'On {terminals}. Margin: {nominal} nominal, {usual} usual, {margin} at the extremes.',
      why,
    },
    'low-to-board': {
      title: 'The board gets {gets} for a low of {placement} and takes {asks}',
      text: 'On {terminals}. Margin: {nominal} nominal, {usual} usual, {margin} at the extremes.',
      why,
    },
    'thin-high-to-part': {
      title: '{placement} has {margin} of margin for a high',
      text: 'From the board, on {terminals}: {gets} comes, {asks} is asked.',
      why: thinWhy,
    },
    'thin-low-to-part': {
      title: '{placement} has {margin} of margin for a low',
      text: 'From the board, on {terminals}: {gets} comes, {asks} is taken.',
      why: thinWhy,
    },
    'thin-high-to-board': {
      title: 'The board has {margin} of margin for a high of {placement}',
      text: 'On {terminals}: {gets} comes, {asks} is asked.',
      why: thinWhy,
    },
    'thin-low-to-board': {
      title: 'The board has {margin} of margin for a low of {placement}',
      text: 'On {terminals}: {gets} comes, {asks} is taken.',
      why: thinWhy,
    },
  },
  remedies: ACROSS_REMEDIES,
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
    const told = new Set(none.map((t) => `${t.placement} ${t.way}`));
    return [
      ...none.map((trouble) => finding(context, trouble, levelOf(context, trouble), '')),
      ...thin.filter((t) => !told.has(`${t.placement} ${t.way}`)).map((trouble) => finding(context, trouble, 'hint', 'thin-')),
    ];
  },
};
