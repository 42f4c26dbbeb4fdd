import { type LevelPair, levelPairs } from '../../electrics/reports/levels';
import { CMOS_ABOVE, feedOf } from '../../electrics/reports/busInputs';
import { isSameNominal } from '../../quantity/range';
import type { PlanTerminal } from '../../nets/terminals';
import { PIN_ROLES } from '../../sheets/roles';
import { partOf } from '../../plan/edit';
import { splitKey } from '../../plan/plan';
import { under } from '../engine/severity';
import type { Check, CheckContext, FindingDraft, Level } from '../engine/check';
import { levelFinding, pairsUnder, troubles } from './levelMessages';
import { LEVEL_TRANSLATION_REMEDIES } from '../fixes/levelTranslation';

const why =
  'VOH at the highest supply of the output, against the absolute maximum of the input: its datasheet value, else VDD(min) + 0.3 V. Above it, current flows through the input protection diode into the supply. The input may work for hours and still be damaged.';

/** Damage is not undone: what is too much within the usual tolerance is no mere risk. Two sources of one nominal voltage are too far apart only
 *  at opposite ends of their tolerance. */
function levelOf(context: CheckContext, pairs: readonly LevelPair[]): Level {
  if (pairsUnder(context, 'usual', pairs).some((pair) => pair.room < 0)) return 'clash';
  return pairs.every((pair) => pair.sameNominal) ? 'hint' : 'risk';
}

/** An analog output on a channel of a converter with a lower supply. */
interface AnalogLoad {
  readonly item: PlanTerminal;
  readonly adc: string;
  readonly mostVolts: number;
  readonly standsVolts: number;
}

function analogLoads({ plan, sheets, board, terminals }: CheckContext): readonly AnalogLoad[] {
  return terminals.flatMap((item): AnalogLoad[] => {
    const end = item.wire?.end;
    if (item.terminal.role !== 'adc.in' || end?.to !== 'terminal') return [];
    if (!partOf(plan, end.placement, sheets)?.terminals.get(end.terminal)?.serves?.includes('analog')) return [];
    const [source, adc] = [feedOf(plan, sheets, board, item.placement.id), feedOf(plan, sheets, board, end.placement)];
    const standsVolts = adc.volts.min + CMOS_ABOVE;
    const isOver = source.rail !== adc.rail && !isSameNominal(source.volts, adc.volts) && source.volts.max > standsVolts;
    return isOver ? [{ item, adc: end.placement, mostVolts: source.volts.max, standsVolts }] : [];
  });
}

function analogFinding(context: CheckContext, { item, adc, mostVolts, standsVolts }: AnalogLoad): FindingDraft {
  const isUsual = analogLoads(under(context, 'usual')).some((load) => load.item.key === item.key);
  return {
    level: isUsual ? 'clash' : 'risk',
    message: 'to-adc',
    place: { placements: [item.placement.id], terminals: [item.key], view: 'levels' },
    data: {
      placement: { is: 'placement', id: item.placement.id },
      terminals: { is: 'labels', keys: [item.key] },
      adc: { is: 'placement', id: adc },
      most: { is: 'volts', value: mostVolts },
      stands: { is: 'volts', value: standsVolts },
    },
    ...(item.part.supply ? { source: item.part.supply.source } : {}),
    remedies: () => [],
  };
}

export const levelDamage: Check = {
  code: 'level-damage',
  harm: true,
  question: 'Is every signal below the absolute maximum of its input?',
  missing: 'shifter',
  messages: {
    'to-part': { title: '{placement}: up to {most} on {terminals}, maximum {stands}', text: 'Driven by the board.', why },
    'to-adc': {
      title: '{placement}: up to {most} on {terminals}, converter maximum {stands}',
      text: 'Measured by {adc}.',
      why: 'The inputs of a converter take no more than its own supply plus 0.3 V: VIN ≤ VDD(min) + 0.3 V. Above it, current flows through the input protection diode. Power both from one rail, or divide the voltage.',
    },
    'to-board': { title: 'Board input {terminals}: up to {most} from {placement}, maximum {stands}', text: 'On {terminals}.', why },
  },
  remedies: LEVEL_TRANSLATION_REMEDIES,
  examine(context) {
    // The level of I2C lines follows from their pull-ups and is checked there.
    const isI2c = (key: string) => {
      const { placement, terminal } = splitKey(key);
      return PIN_ROLES[partOf(context.plan, placement, context.sheets)?.terminals.get(terminal)?.role ?? 'external']?.line?.kind === 'i2c';
    };
    const bad = levelPairs(context.plan, context.sheets).filter((pair) => pair.verdict === 'damage' && !isI2c(pair.key));
    const measured = analogLoads(context).map((load) => analogFinding(context, load));
    const lines = troubles(bad, (pair) => pair.room).map((trouble) => {
      const [worst] = trouble.pairs;
      return levelFinding(context, trouble, {
        level: levelOf(context, trouble.pairs),
        message: trouble.way,
        data: { most: { is: 'volts', value: worst.mostVolts }, stands: { is: 'volts', value: worst.standsVolts } },
        verdicts: ['damage', 'none'],
      });
    });
    return [...lines, ...measured];
  },
};
