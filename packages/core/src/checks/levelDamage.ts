import { type LevelPair, levelPairs } from '../electrics/levels';
import { PIN_ROLES } from '../sheets/roles';
import { partOf } from '../plan/edit';
import { splitKey } from '../plan/plan';
import type { Check, CheckContext, Level } from './check';
import { levelFinding, pairsUnder, troubles } from './levelMessages';
import { ACROSS_REMEDIES } from './waysAcross';

const why =
  'VOH at the highest supply of the output, against the absolute maximum of the input: its datasheet value, else VDD(min) + 0.3 V. Above it, current flows through the input protection diode into the supply. The input may work for hours and still be damaged.';

/** Damage is not undone: what is too much within the usual tolerance is no mere risk. Two sources of one nominal voltage are too far apart only
 *  at opposite ends of their tolerance. */
function levelOf(context: CheckContext, pairs: readonly LevelPair[]): Level {
  if (pairsUnder(context, 'usual', pairs).some((pair) => pair.room < 0)) return 'clash';
  return pairs.every((pair) => pair.sameNominal) ? 'hint' : 'risk';
}

export const levelDamage: Check = {
  code: 'level-damage',
  harm: true,
  question: 'Is every signal below the absolute maximum of its input?',
  lacks: 'shifter',
  messages: {
    'to-part': { title: '{placement}: up to {most} on {terminals}, maximum {stands}', text: 'Driven by the board.', why },
    'to-board': { title: 'Board input {terminals}: up to {most} from {placement}, maximum {stands}', text: 'On {terminals}.', why },
  },
  remedies: ACROSS_REMEDIES,
  examine(context) {
    // The level of I2C lines follows from their pull-ups and is checked there.
    const isI2c = (key: string) => {
      const { placement, terminal } = splitKey(key);
      return PIN_ROLES[partOf(context.plan, placement, context.sheets)?.terminals.get(terminal)?.role ?? 'external']?.line?.kind === 'i2c';
    };
    const bad = levelPairs(context.plan, context.sheets).filter((pair) => pair.verdict === 'damage' && !isI2c(pair.key));
    return troubles(bad, (pair) => pair.room).map((trouble) => {
      const [worst] = trouble.pairs;
      return levelFinding(context, trouble, {
        level: levelOf(context, trouble.pairs),
        message: trouble.way,
        data: { most: { is: 'volts', value: worst.mostVolts }, stands: { is: 'volts', value: worst.standsVolts } },
        verdicts: ['damage', 'none'],
      });
    });
  },
};
