import { fitLadder, type LadderReading, type LadderReport, ladderReports } from '../../electrics/reports/ladderReport';
import { applyEdits } from '../../plan/applyEdits';
import type { Edit } from '../../plan/edit';
import type { Check, CheckContext, FindingDraft, Remedy } from '../engine/check';

/** How sure a reading is, the surest last. */
const ORDER: readonly LadderReading['verdict'][] = ['overlap', 'thin', 'good'];

/** Values on hand that tell the keys apart, where they do it better than those there are. */
function fitted({ plan, sheets }: CheckContext, { placement, count, reading }: LadderReport): readonly Remedy[] {
  const ladder = fitLadder(plan, count);
  if (!ladder) return [];
  const edits: readonly Edit[] = [{ kind: 'ladder', placement, ladder }];
  const after = applyEdits(plan, edits, sheets);
  const then = after.ok ? ladderReports(after.plan, sheets).find((one) => one.placement === placement)?.reading : undefined;
  if (!then || then.verdict === 'overlap' || (reading && ORDER.indexOf(then.verdict) <= ORDER.indexOf(reading.verdict))) return [];
  return [{ label: 'fit', data: { placement: { is: 'placement', id: placement } }, grade: 'offered', edits }];
}

const keyWord = (number: number): string => (number === 0 ? 'no key' : `key ${number}`);

const why =
  'Reading = Rkey / (Rkey + Rpull) · (2^bits − 1). With every resistor and the supply at its limits, neighbouring keys must stay 8 counts and 0.5 % of full scale apart.';

export const ladderAmbiguous: Check = {
  code: 'ladder-ambiguous',
  question: 'Can all keys on an analog input be distinguished?',
  missing: 'resistor',
  messages: {
    overlap: {
      title: '{placement}: two keys give the same reading',
      text: '{first} and {second} overlap by {counts} at {terminal}.',
      why,
    },
    thin: {
      title: '{placement}: two keys give nearly the same reading',
      text: '{first} and {second} are {counts} apart at {terminal}, worst case.',
      why,
    },
    unknown: {
      title: '{placement}: resistor values unknown',
      text: 'Without them the readings at {terminal} cannot be calculated.',
      why: 'Key modules are sold with different resistors. Their values, read from the module or chosen from your values on hand, give the readings and the thresholds between them.',
    },
  },
  remedies: { fit: 'Choose resistors for {placement} from the values on hand' },
  examine: (context) =>
    ladderReports(context.plan, context.sheets).flatMap((sheet): FindingDraft[] => {
      const { placement, key, values, reading } = sheet;
      const place = { placements: [placement], terminals: [key], view: 'resistors' as const };
      const data = { placement: { is: 'placement' as const, id: placement }, terminal: { is: 'terminal' as const, key } };
      const remedies = () => fitted(context, sheet);
      // A board sheet without facts on analog inputs cannot be checked.
      if (!values) return sheet.counts === undefined ? [] : [{ level: 'hint', message: 'unknown', place, data, remedies }];
      if (!reading || reading.verdict === 'good') return [];
      const overlap = reading.verdict === 'overlap';
      const [first, second] = reading.between;
      return [
        {
          level: overlap ? 'clash' : 'risk',
          message: reading.verdict,
          place,
          data: {
            ...data,
            first: { is: 'words', text: keyWord(first) },
            second: { is: 'words', text: keyWord(second) },
            counts: { is: 'count', value: Math.round(Math.abs(reading.gap)), noun: 'count' },
          },
          ...(context.board.sheet.analog ? { source: context.board.sheet.analog.source } : {}),
          remedies,
        },
      ];
    }),
};
