import { lastOrThrow } from '../../collections/orThrow';
import { firstFree } from '../../plan/newPlacement';
import type { Placement } from '../../plan/plan';
import type { Check } from '../engine/check';

/** A name as people compare it. */
const folded = (name: string): string => name.trim().replaceAll(/\s+/gu, ' ').toLowerCase();

export const nameShared: Check = {
  code: 'name-shared',
  question: 'Does every part have a name of its own?',
  messages: {
    shared: {
      title: '{count} named {name}',
      text: 'The build sheet cannot tell them apart.',
      why: 'Parts are identified by name on the build sheet, in the wire table and in findings; letter case and spaces do not count.',
    },
  },
  remedies: { rename: 'Rename one to {name}' },
  planWide: true,
  examine: ({ plan }) => {
    const byName = new Map<string, Placement[]>();
    for (const placement of plan.placements) {
      const name = folded(placement.name);
      byName.set(name, [...(byName.get(name) ?? []), placement]);
    }
    const taken = new Set(byName.keys());
    return [...byName.values()].flatMap((same) => {
      const last = lastOrThrow(same);
      if (same.length < 2) return [];
      const name = firstFree(
        (one) => taken.has(folded(one)),
        (n) => `${last.name.trim().slice(0, 76)} ${n + 1}`,
      );
      return [
        {
          level: 'risk',
          message: 'shared',
          place: { placements: same.map(({ id }) => id) },
          data: { count: { is: 'count', value: same.length, noun: 'part' }, name: { is: 'words', text: last.name.trim() } },
          remedies: () => [
            {
              label: 'rename',
              data: { name: { is: 'words', text: name } },
              grade: 'offered',
              edits: [{ kind: 'rename-placement', placement: last.id, name }],
            },
          ],
        },
      ];
    });
  },
};
