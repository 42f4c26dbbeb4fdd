import type { PlanContext } from '../../plan/planContext';
import { findNets } from '../../nets/nets';
import type { PlanTerminal } from '../../nets/terminals';
import { partOf } from '../../plan/edit';
import type { Driver } from '../../plan/plan';
import { typical } from '../../quantity/range';
import { valuesWithin } from '../../quantity/series';
import { logicVolts } from './busInputs';
import { baseAmps, digitAmps, type LedReport, ledReports, pinLimit } from './ledReport';
import { BASE_VOLTS, baseResistor } from '../formulas/transistor';

/** Gains that switch a transistor on for certain: more base current first. */
const FORCED_GAINS = [10, 15, 20] as const;
/** At a gate there is nothing to set: it only keeps the edge from ringing, in ohms. */
const GATE_OHMS = 100;

/** A transistor that switches a load and that a pin can drive: the largest base resistor that still saturates it; a MOSFET if the pin is
 *  too weak for the base current.
 *  @param amps current of the load, in amperes
 *  @param limitAmps maximum current of the pin, in amperes
 *  @param from whether it switches the supply side of the load */
export function transistorFor(
  { plan, board }: PlanContext,
  amps: number,
  limitAmps: number,
  from: 'supply' | 'ground',
): Driver | undefined {
  const values = valuesWithin(plan.valuesOnHand, 47, 100e3);
  for (const gain of FORCED_GAINS) {
    const exact = baseResistor({ high: typical(logicVolts(board)), vbe: BASE_VOLTS, gain, amps });
    const ohms = values.findLast((value) => value <= exact * (1 + 1e-9));
    if (ohms === undefined) continue;
    const driver: Driver = { kind: from === 'supply' ? 'pnp' : 'npn', ohms };
    if (baseAmps(logicVolts(board).max, driver) <= limitAmps) return driver;
  }
  const ohms = values.find((value) => value >= GATE_OHMS);
  return ohms === undefined ? undefined : { kind: from === 'supply' ? 'pmos' : 'nmos', ohms };
}

/** Whether the common line of a digit is at the supply's side. */
export const isAnode = ({ plan, sheets }: PlanContext, placement: string): boolean =>
  partOf(plan, placement, sheets)?.sheet.polarity?.common === 'anode';

const planned = (led: LedReport): number => (led.ohms === undefined ? led.targetAmps : led.amps.max);

/** What a digit carries with all its segments lit, in amperes: as planned where resistors are still missing. */
export function plannedDigitAmps({ plan, sheets }: PlanContext, placement: string): number {
  const amps = digitAmps(plan, sheets, placement);
  if (Number.isFinite(amps)) return amps;
  return ledReports(plan, sheets).reduce((sum, led) => sum + (led.placement === placement ? planned(led) : 0), 0);
}

/** What a pin, or an output of another part, may carry at the end of a wire, in amperes; undefined where nothing states it. */
export function endLimit({ plan, sheets, board }: PlanContext, { key, wire }: PlanTerminal): number | undefined {
  const pin = findNets(plan, sheets).byTerminal.get(key)?.pins[0];
  if (pin !== undefined) return pinLimit(board, pin);
  const end = wire?.end;
  const other = end?.to === 'terminal' ? partOf(plan, end.placement, sheets) : undefined;
  const serves = end?.to === 'terminal' ? other?.terminals.get(end.terminal)?.serves : undefined;
  const isOutput = serves?.some((does) => does === 'output' || does === 'select');
  return isOutput && other?.sheet.drive ? other.sheet.drive.milliamps / 1000 : undefined;
}

/** The transistor that the calculation gives for a terminal as it is wired: for the current of a digit, or for the load that its sheet states.
 *  Undefined where no current is known. */
export function calculatedTransistor(context: PlanContext, item: PlanTerminal): Driver | undefined {
  const { placement, terminal } = item;
  const limit = endLimit(context, item);
  const amps = terminal.digit
    ? plannedDigitAmps(context, placement.id)
    : terminal.loadMilliamps === undefined
      ? undefined
      : terminal.loadMilliamps / 1000;
  if (limit === undefined || amps === undefined || !(amps > 0)) return undefined;
  return transistorFor(context, amps, limit, terminal.digit && isAnode(context, placement.id) ? 'supply' : 'ground');
}
