import { canBeSoftwarePwm } from '../../sheets/softwarePwm';
import { type EditRule, partOf, refuse } from '../edit';
import { PLAN_LIMITS, terminalKey } from '../plan';

/** PWM of a terminal by the program, or by a timer again. */
export const softwarePwm: EditRule<'software-pwm'> = {
  apply(plan, { placement, terminal, on }, sheets) {
    const part = partOf(plan, placement, sheets);
    if (!part) return refuse('placement', 'a part of this plan', placement);
    const found = part.terminals.get(terminal);
    if (on && (!found || !canBeSoftwarePwm(found))) return refuse('terminal', 'a terminal that needs PWM, of any frequency', terminal);
    const key = terminalKey(placement, terminal);
    const { [key]: before, ...others } = plan.softwarePwm;
    if (on && !before && Object.keys(others).length >= PLAN_LIMITS.series)
      return refuse('on', `at most ${PLAN_LIMITS.series} terminals`, 'one more');
    return {
      ok: true,
      plan: { ...plan, softwarePwm: on ? { ...others, [key]: true } : others },
      inverse: [{ kind: 'software-pwm', placement, terminal, on: before === true }],
    };
  },
};
