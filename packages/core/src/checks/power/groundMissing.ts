import { terminalsOf } from '../../nets/terminals';
import { isSecondGround } from '../../nets/grounds';
import type { Check } from '../engine/check';

export const groundMissing: Check = {
  code: 'ground-missing',
  question: 'Are all ground terminals of every part connected?',
  messages: {
    second: {
      title: '{placement}: ground not connected ({terminals})',
      text: 'It works, but the return current takes a longer path.',
      why: 'The grounds are joined on the part. Connecting all of them shortens the return path and reduces ground offset.',
    },
  },
  remedies: { wire: 'Connect {terminals} to ground' },
  examine: ({ plan, sheets, nets }) =>
    plan.placements.flatMap((placement) => {
      const grounds = terminalsOf(plan, placement, sheets).filter((t) => t.terminal.role === 'ground');
      const open = grounds.filter((t) => !nets.byTerminal.has(t.key) && isSecondGround(t.terminal));
      // A part without any ground wire is reported as unconnected.
      if (open.length === 0 || open.length === grounds.length || !grounds.some((t) => nets.byTerminal.get(t.key)?.ground)) return [];
      const terminals = { is: 'labels' as const, keys: open.map((t) => t.key) };
      return [
        {
          level: 'hint',
          message: 'second',
          place: { placements: [placement.id], view: 'supply' },
          data: { placement: { is: 'placement', id: placement.id }, terminals },
          remedies: () => [
            {
              label: 'wire',
              data: { terminals },
              grade: 'safe',
              edits: open.map((t) => ({ kind: 'wire', placement: placement.id, terminal: t.terminal.id, end: { to: 'ground' } })),
            },
          ],
        },
      ];
    }),
};
