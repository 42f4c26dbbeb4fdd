import { isPulledUp } from '../../nets/pulled';
import { PIN_ROLES } from '../../sheets/roles';
import type { Check } from '../engine/check';
import { shifterLines } from './shifterLines';
import { repacked } from '../fixes/levelTranslation';

export const shifterUnfit: Check = {
  code: 'shifter-unfit',
  question: 'Is every level shifter suitable for lines with pull-ups?',
  messages: {
    pulled: {
      title: '{shifter} is unsuitable for {terminals}',
      text: 'Auto-direction sensing is disturbed by pull-ups below 50 kΩ.',
      why: 'An auto-direction translator has internal pull-ups, about 4 kΩ while high and 40 kΩ while low. External pull-ups and long wires keep its output between the levels. I2C and 1-Wire lines always have pull-ups.',
    },
  },
  remedies: { other: 'Use {modules} for these lines' },
  examine: (context) =>
    shifterLines(context).flatMap(({ placement, part, items }) => {
      if (part.levelShifter.kind !== 'auto') return [];
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
