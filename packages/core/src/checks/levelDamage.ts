import { levelPairs } from '../electrics/levels';
import { PIN_ROLES } from '../sheets/roles';
import { partOf } from '../plan/edit';
import { splitKey } from '../plan/plan';
import type { Check } from './check';
import { levelFinding, pairsUnder, troubles } from './levelMessages';
import { ACROSS_REMEDIES } from './waysAcross';

const why =
  'What an output gives at the highest of its supply, against what the input stands: as its sheet says, else its own supply at the lowest and 0.3 V. Above that, current flows through the protection of the input into its supply. It may work for hours, and it damages: at once, or slowly.';

export const levelDamage: Check = {
  code: 'level-damage',
  harm: true,
  question: 'Does nothing get more volts on a signal than it stands?',
  lacks: 'shifter',
  messages: {
    'to-part': { title: '{placement} gets up to {most} where it stands {stands}', text: 'From the board, on {terminals}.', why },
    'to-board': { title: '{placement} gives up to {most} where the board stands {stands}', text: 'On {terminals}.', why },
  },
  remedies: ACROSS_REMEDIES,
  examine(context) {
    // Lines of I2C are what their pull-ups make them: that is told there.
    const isI2c = (key: string) => {
      const { placement, terminal } = splitKey(key);
      return PIN_ROLES[partOf(context.plan, placement, context.sheets)?.terminals.get(terminal)?.role ?? 'outside']?.line?.kind === 'i2c';
    };
    const bad = levelPairs(context.plan, context.sheets).filter((pair) => pair.verdict === 'damage' && !isI2c(pair.key));
    return troubles(bad, (pair) => pair.room).map((trouble) => {
      const [worst] = trouble.pairs;
      return levelFinding(context, trouble, {
        // Damage is not undone: what is too much within the usual tolerance is no mere risk.
        level: pairsUnder(context, 'usual', trouble.pairs).some((pair) => pair.room < 0) ? 'clash' : 'risk',
        message: trouble.way,
        data: { most: { is: 'volts', value: worst.mostVolts }, stands: { is: 'volts', value: worst.standsVolts } },
        verdicts: ['damage', 'none'],
      });
    });
  },
};
