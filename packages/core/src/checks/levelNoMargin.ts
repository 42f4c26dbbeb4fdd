import { type LevelPair, levelPairs } from '../electrics/levels';
import type { Check, CheckContext, FindingDraft, Level } from './check';
import { levelFinding, type Trouble, troubles } from './levelMessages';
import { ACROSS_REMEDIES } from './waysAcross';

const least = (pair: LevelPair): number => Math.min(pair.marginHigh, pair.marginLow);

const why =
  'Margin of the high level: VOH − VIH; of the low level: VIL − VOL; both where supplies and outputs are at their worst together. Without margin a level is a guess: it often works on the bench, and fails with another supply, another part of the kind, or in the cold.';
const thinWhy = `${why} Less than a tenth of the supply is thin: long wires and switched loads eat that much.`;

function finding(context: CheckContext, trouble: Trouble, level: Level, thin: '' | 'thin-'): FindingDraft {
  const [worst] = trouble.pairs;
  const high = worst.marginHigh <= worst.marginLow;
  return levelFinding(context, trouble, {
    level,
    message: `${thin}${high ? 'high' : 'low'}-${trouble.way}`,
    data: {
      gets: { is: 'volts', value: high ? worst.highVolts : worst.lowVolts },
      asks: { is: 'volts', value: high ? worst.vihVolts : worst.vilVolts },
      margin: { is: 'volts', value: Math.abs(least(worst)) },
    },
    verdicts: thin ? ['damage', 'none', 'thin'] : ['damage', 'none'],
  });
}

export const levelNoMargin: Check = {
  code: 'level-no-margin',
  question: 'Is every high a high and every low a low, with margin, at the worst corner of both supplies?',
  messages: {
    'high-to-part': { title: '{placement} gets {gets} for a high and asks {asks}', text: 'From the board, on {terminals}.', why },
    'low-to-part': { title: '{placement} gets {gets} for a low and takes {asks}', text: 'From the board, on {terminals}.', why },
    'high-to-board': { title: 'The board gets {gets} for a high of {placement} and asks {asks}', text: 'On {terminals}.', why },
    'low-to-board': { title: 'The board gets {gets} for a low of {placement} and takes {asks}', text: 'On {terminals}.', why },
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
      ...none.map((trouble) => finding(context, trouble, 'risk', '')),
      ...thin.filter((t) => !told.has(`${t.placement} ${t.way}`)).map((trouble) => finding(context, trouble, 'hint', 'thin-')),
    ];
  },
};
