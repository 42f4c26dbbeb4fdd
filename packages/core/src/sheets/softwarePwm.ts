import { memoizeByObject } from '../memo/memoizeByObject';
import type { PartTerminal } from './partSheet';
import { PIN_ROLES } from './roles';

/** Whether a terminal needs PWM. */
export const needsPwm = ({ role, requires }: PartTerminal): boolean => PIN_ROLES[role]?.pwm === true || requires?.includes('pwm') === true;

/** Whether a program can make a terminal's PWM: one that must have a certain frequency, such as a servo's, needs a timer. */
export const canBeSoftwarePwm = (terminal: PartTerminal): boolean => needsPwm(terminal) && terminal.pwmHz === undefined;

/** A terminal whose PWM the program makes: an output like any other. Always the same for one terminal. */
export const asSoftwarePwm = memoizeByObject((terminal: PartTerminal): PartTerminal => {
  const { requires, ...rest } = terminal;
  const left = requires?.filter((one) => one !== 'pwm') ?? [];
  return { ...rest, role: terminal.role === 'pwm.out' ? 'gpio.out' : terminal.role, ...(left.length > 0 ? { requires: left } : {}) };
});
