import type { BoardPin } from '../../sheets/boardSheet';
import { needsPwm } from '../../sheets/softwarePwm';
import type { PlanTerminal } from '../../nets/terminals';

/** Whether a terminal requires PWM. */
export const usesPwm = ({ terminal }: PlanTerminal): boolean => needsPwm(terminal);
/** Whether a terminal requires an interrupt. */
export const usesInterrupt = ({ terminal }: PlanTerminal): boolean => terminal.requires?.includes('interrupt') === true;

/** Shared resources of a pin for these terminals.
 *  @example resourcesAt(gp0, [servo]) // ['channel slice 0/0A', 'timer slice 0'] */
export function resourcesAt(pin: BoardPin, terminals: readonly PlanTerminal[]): readonly string[] {
  const pwm = terminals.some(usesPwm) && pin.pwm ? [`channel ${pin.pwm.timer}/${pin.pwm.channel}`, `timer ${pin.pwm.timer}`] : [];
  const lines = terminals.some(usesInterrupt) ? (pin.interrupts ?? []) : [];
  // A shared interrupt serves a group of pins and the program reads which one changed; a dedicated line is needed only if a pin has no
  // shared one.
  const own = lines.some((line) => line.shared) ? [] : lines.map((line) => `interrupt ${line.line}`);
  return [...pwm, ...own];
}

/** Whether two PWM users need frequencies that one timer cannot provide. */
export function unlikePwm(a: readonly PlanTerminal[], b: readonly PlanTerminal[]): boolean {
  const hertz = (terminals: readonly PlanTerminal[]) => terminals.flatMap((t) => t.terminal.pwmHz ?? []);
  return hertz(a).some((x) => hertz(b).some((y) => x.max < y.min || y.max < x.min));
}
