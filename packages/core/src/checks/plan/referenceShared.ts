import { lastOrThrow } from '../../collections/orThrow';
import { type Component, planComponents } from '../../electrics/reports/components';
import { firstFree } from '../../plan/newPlacement';
import type { Check, FindingDraft } from '../engine/check';

/** The place of components: their terminals and parts. */
const placeOf = (components: readonly Component[]): FindingDraft['place'] => ({
  placements: [...new Set(components.flatMap(({ placement }) => placement ?? []))],
  terminals: [...new Set(components.flatMap(({ key }) => key ?? []))],
});

export const referenceShared: Check = {
  code: 'reference-shared',
  question: 'Does every component have a reference designator of its own?',
  messages: {
    shared: {
      title: '{count} named {name}',
      text: 'The build sheet and the bill of materials cannot tell them apart.',
      why: 'The build sheet names the component that a leg leads to by its reference designator.',
    },
  },
  remedies: { rename: 'Rename one to {name}' },
  planWide: true,
  examine: ({ plan, sheets, board }) => {
    const own = planComponents(plan, sheets);
    const ofChip = new Set((board.sheet.chipCircuit?.components ?? []).map(({ name }) => name));
    const taken = new Set([...ofChip, ...own.map(({ name }) => name)]);
    const byName = new Map<string, Component[]>();
    for (const one of own) byName.set(one.name, [...(byName.get(one.name) ?? []), one]);
    return [...byName].flatMap(([name, same]): FindingDraft[] => {
      const count = same.length + (ofChip.has(name) ? 1 : 0);
      if (count < 2) return [];
      const letters = name.replace(/\d+$/, '');
      const free = firstFree(
        (one) => taken.has(one),
        (n) => `${letters}${n}`,
      );
      return [
        {
          level: 'risk',
          message: 'shared',
          place: placeOf(same),
          data: { count: { is: 'count', value: count, noun: 'component' }, name: { is: 'words', text: name } },
          remedies: () => [
            {
              label: 'rename',
              data: { name: { is: 'words', text: free } },
              grade: 'offered',
              edits: [{ kind: 'reference', component: lastOrThrow(same).id, name: free }],
            },
          ],
        },
      ];
    });
  },
};
