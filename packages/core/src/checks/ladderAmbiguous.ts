import { fitLadder, type LadderReading, type LadderSheet, ladderSheets } from '../electrics/ladderSheet';
import { applyEdits } from '../plan/applyEdits';
import type { Edit } from '../plan/edit';
import type { Check, CheckContext, FindingDraft, Remedy } from './check';

/** How sure a reading is, the surest last. */
const ORDER: readonly LadderReading['verdict'][] = ['overlap', 'thin', 'good'];

/** Values of the drawer that tell the keys apart, where they do it better than those there are. */
function fitted({ plan, sheets }: CheckContext, { placement, count, reading }: LadderSheet): readonly Remedy[] {
  const ladder = fitLadder(plan, count);
  if (!ladder) return [];
  const edits: readonly Edit[] = [{ kind: 'ladder', placement, ladder }];
  const after = applyEdits(plan, edits, sheets);
  const then = after.ok ? ladderSheets(after.plan, sheets).find((one) => one.placement === placement)?.reading : undefined;
  if (!then || then.verdict === 'overlap' || (reading && ORDER.indexOf(then.verdict) <= ORDER.indexOf(reading.verdict))) return [];
  return [{ label: 'fit', data: { placement: { is: 'placement', id: placement } }, grade: 'offered', edits }];
}

const keyWord = (number: number): string => (number === 0 ? 'no key' : `key ${number}`);

const why =
  'Each key gives the analog input a voltage of its own. At the corners of all resistors, of the supply and of the range that the board reads right, two of them must still be far enough apart: by 8 counts, and by half a per cent of the scale.';

export const ladderAmbiguous: Check = {
  code: 'ladder-ambiguous',
  question: 'Can the keys on an analog input be told apart?',
  lacks: 'resistor',
  messages: {
    overlap: {
      title: 'Two keys of {placement} can read alike',
      text: '{first} and {second} overlap by {counts}, at {terminal}.',
      why,
    },
    thin: {
      title: 'Two keys of {placement} read nearly alike',
      text: '{first} and {second} are {counts} apart at worst, at {terminal}.',
      why,
    },
    unknown: {
      title: 'Resistors of {placement} not known',
      text: 'Without them nobody can say what {terminal} reads for each key.',
      why: 'Modules of keys come with all sorts of resistors. Their values, read off the module or chosen from the drawer, give the readings of the keys and the thresholds between them.',
    },
  },
  remedies: { fit: 'Choose the resistors of {placement} from the drawer' },
  examine: (context) =>
    ladderSheets(context.plan, context.sheets).flatMap((sheet): FindingDraft[] => {
      const { placement, key, values, reading } = sheet;
      const place = { placements: [placement], terminals: [key], view: 'resistors' as const };
      const data = { placement: { is: 'placement' as const, id: placement }, terminal: { is: 'terminal' as const, key } };
      const remedies = () => fitted(context, sheet);
      // A board whose sheet says nothing of its analog inputs cannot be asked.
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
