import { terminalsOf } from '../nets/terminals';
import { isSecondGround } from '../nets/grounds';
import type { Check } from './check';

export const groundMissing: Check = {
  code: 'ground-missing',
  question: 'Are all grounds of every part wired?',
  messages: {
    second: {
      title: '{placement} has a ground that is not wired: {terminals}',
      text: 'It works without, with a longer way for the current.',
      why: 'Several grounds of a part are joined on it. The current of what switches comes back on the nearest one; wired all, they keep the levels where they are meant to be.',
    },
  },
  remedies: { wire: 'Wire {terminals} to ground' },
  examine: ({ plan, sheets, nets }) =>
    plan.placements.flatMap((placement) => {
      const grounds = terminalsOf(plan, placement, sheets).filter((t) => t.terminal.role === 'ground');
      const open = grounds.filter((t) => !nets.byTerminal.has(t.key) && isSecondGround(t.terminal));
      // A part without any is told as open.
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
