import { findNets } from '../../nets/nets';
import { type PlanTerminal, planTerminals } from '../../nets/terminals';
import { boardOf } from '../../plan/edit';
import type { Plan } from '../../plan/plan';
import type { Sheets } from '../../sheets/sheetIndex';

/** What an analog input of the board reads, and the resistance that it reads it through. */
export interface AnalogSource {
  readonly item: PlanTerminal;
  readonly pin: string;
  /** With nominal values, at the position or state in which it is highest, in ohms. */
  readonly ohms: number;
  /** Which resistor sets it: the fixed one of a sensor or divider, that of a ladder of keys, or the part itself. */
  readonly set: 'pull' | 'ladder' | 'part';
  readonly maxOhms: number;
}

/** The resistance of what is at an analog terminal, in ohms; undefined where nothing is known of it. */
function sourceAt(plan: Plan, { key, placement, terminal }: PlanTerminal): Pick<AnalogSource, 'ohms' | 'set'> | undefined {
  const [pull, series, ladder] = [plan.pulls[key], plan.series[key] ?? 0, plan.ladders[placement.id]];
  // With no key pressed, the pin sees only the resistor that holds it.
  if (ladder) return { ohms: ladder.pull, set: 'ladder' };
  // A sensor that nearly isolates leaves the fixed resistor; a divider both in parallel.
  if (pull) return { ohms: series > 0 && pull.to === 'ground' ? (series * pull.ohms) / (series + pull.ohms) : pull.ohms, set: 'pull' };
  return terminal.sourceOhms === undefined ? undefined : { ohms: terminal.sourceOhms + series, set: 'part' };
}

/** Every analog input of the board for which its sheet states a source resistance, with what is known of the source at it. */
export function analogSources(plan: Plan, sheets: Sheets): readonly AnalogSource[] {
  const board = boardOf(plan, sheets);
  const maxOhms = board?.sheet.analog?.sourceOhms;
  if (!board || maxOhms === undefined) return [];
  const nets = findNets(plan, sheets);
  return planTerminals(plan, sheets).flatMap((item): AnalogSource[] => {
    const pin = item.terminal.role === 'adc.in' ? nets.byTerminal.get(item.key)?.pins[0] : undefined;
    const source = sourceAt(plan, item);
    return pin !== undefined && source ? [{ item, pin, ...source, maxOhms }] : [];
  });
}
