import { findOrThrow } from '../../collections/orThrow';
import { freePins } from '../../assign/fit/freePins';
import { findNets } from '../../nets/nets';
import { type PlanTerminal, terminalsOf } from '../../nets/terminals';
import { applyEdits } from '../../plan/applyEdits';
import type { Edit } from '../../plan/edit';
import { formatSi } from '../../quantity/format';
import { canBeSoftwarePwm } from '../../sheets/softwarePwm';
import type { CheckContext, Remedy } from '../engine/check';

/** The label of the fix. */
export const SOFTWARE_PWM = 'Make the PWM of {terminals} by software (about {clock})';

/** "Make the PWM by software": on the pins where the terminals are, or for open ones on free pins of any kind. */
export function pwmBySoftware({ plan, sheets, board }: CheckContext, open: readonly PlanTerminal[]): readonly Remedy[] {
  const hz = board.sheet.software?.pwmHz;
  const items = open.filter(({ terminal }) => canBeSoftwarePwm(terminal));
  if (hz === undefined || items.length === 0) return [];
  const edits: Edit[] = [];
  let now = plan;
  const take = (edit: Edit): boolean => {
    const result = applyEdits(now, [edit], sheets);
    if (result.ok) now = result.plan;
    edits.push(edit);
    return result.ok;
  };
  for (const { placement, terminal } of items) {
    const at = { placement: placement.id, terminal: terminal.id };
    if (!take({ kind: 'software-pwm', ...at, on: true })) return [];
    const item = findOrThrow(terminalsOf(now, placement, sheets), (t) => t.terminal.id === terminal.id);
    if (item.wire) continue;
    const [pin] = freePins(board, findNets(now, sheets), item);
    if (pin === undefined || !take({ kind: 'wire', ...at, end: { to: 'pin', pin } })) return [];
  }
  return [
    {
      label: 'software-pwm',
      grade: 'offered',
      edits,
      data: { terminals: { is: 'terminals', keys: items.map((t) => t.key) }, clock: { is: 'words', text: formatSi(hz, 'Hz') } },
    },
  ];
}
