import { isPulledUp } from '../nets/pulled';
import { PIN_ROLES } from '../sheets/roles';
import type { Check } from './check';
import { shifterLines } from './shifterLines';
import { repacked } from './waysAcross';

export const shifterUnfit: Check = {
  code: 'shifter-unfit',
  question: 'Is no line with pull-ups led through a level shifter that they disturb?',
  messages: {
    pulled: {
      title: '{shifter} is not for {terminals}',
      text: 'It finds the direction by the edges; pull-ups below 50 kΩ disturb that.',
      why: 'A translator that finds the direction by itself has pull-ups of its own, which it weakens while a line is low: 4 kΩ high, 40 kΩ low. Stronger ones outside, and the capacitance of long wires, hold it in the middle. On I2C and 1-Wire there always are some.',
    },
  },
  remedies: { other: 'Take these lines through {modules}' },
  examine: (context) =>
    shifterLines(context).flatMap(({ placement, part, items }) => {
      if (part.passage!.kind !== 'auto') return [];
      const lines = items.filter(
        (item) =>
          PIN_ROLES[item.terminal.role]?.line?.kind === 'i2c' || item.terminal.role === 'onewire.data' || isPulledUp(context.plan, item),
      );
      if (lines.length === 0) return [];
      const keys = lines.map((item) => item.key);
      return [
        {
          level: 'risk',
          message: 'pulled',
          place: { placements: [placement.id], view: 'levels' },
          data: { shifter: { is: 'placement', id: placement.id }, terminals: { is: 'terminals', keys } },
          ...(part.levels ? { source: part.levels.source } : {}),
          remedies: () => {
            const found = repacked(context, placement.id, keys);
            return found ? [{ label: 'other', data: { modules: found.modules }, grade: 'offered', edits: found.edits }] : [];
          },
        },
      ];
    }),
};
