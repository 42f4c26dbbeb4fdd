import { orThrow } from '../../collections/orThrow';
import { enablingOf } from '../../electrics/reports/enabling';
import { enablingText } from '../../text/enablingText';
import type { Check, FindingDraft } from '../engine/check';
import { moveToFree } from '../fixes/remedyParts';

export const busNotEnabled: Check = {
  code: 'bus-not-enabled',
  question: 'Is everything enabled that the board’s operating system leaves disabled, and does it leave the other pins alone?',
  planWide: true,
  messages: {
    off: {
      title: '{what} must be enabled',
      text: '{how}',
      why: 'Under an operating system a controller has no pins until its configuration assigns them. Accept this finding once that is done.',
    },
    claims: {
      title: '{what} also takes {pins}',
      text: '{how} also takes {pins}, where {terminals} is connected.',
      why: 'An overlay takes all pins of its function, whether the plan uses them or not; a program cannot use them then.',
    },
  },
  remedies: { move: 'Move {terminal} to {pin}' },
  examine: (context) =>
    enablingOf(context.plan, context.sheets, context.board).map((enabled): FindingDraft => {
      const { title, pins, controller, conflicts, meets } = enabled;
      const place = { pins: [...pins, ...conflicts], ...(controller === undefined ? {} : { bus: controller }) };
      const what = { is: 'words', text: title } as const;
      const { source } = orThrow(context.board.sheet.enabling, 'enabling of buses in the board sheet');
      const how = { is: 'words', text: enablingText(enabled) } as const;
      if (conflicts.length === 0) return { level: 'hint' as const, message: 'off', place, data: { what, how }, source, remedies: () => [] };
      return {
        level: 'risk' as const,
        message: 'claims',
        place: { ...place, terminals: meets },
        data: {
          what,
          how: { is: 'words', text: enabled.lines.join(' and ') } as const,
          pins: { is: 'pins', pins: conflicts } as const,
          terminals: { is: 'terminals', keys: meets } as const,
        },
        source,
        remedies: () => context.terminals.filter(({ key }) => meets.includes(key)).flatMap((item) => moveToFree(context, item)),
      };
    }),
};
