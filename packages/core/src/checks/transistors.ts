import { baseAmps, digitAmps, type Lamp, lampsOf } from '../electrics/lamps';
import { logicVolts } from '../electrics/busInputs';
import { BASE_VOLTS, baseResistor } from '../electrics/transistor';
import { partOf } from '../plan/edit';
import { type Driver, splitKey, type TerminalKey } from '../plan/plan';
import { typical } from '../quantity/range';
import { drawerValues } from '../quantity/series';
import type { CheckContext, Remedy } from './check';
import type { LampContext } from './lampParts';

/** Gains that switch a transistor on for certain: more base current first. */
const FORCED_GAINS = [10, 15, 20] as const;
/** At a gate there is nothing to set: it only keeps the edge from ringing, in ohms. */
const GATE_OHMS = 100;

/** A transistor that switches a load and that a pin can drive: the largest base resistor that still saturates it; a MOSFET if the pin is
 *  too weak for the base current.
 *  @param from whether it switches the supply side of the load */
export function transistorFor(
  { plan, board }: LampContext,
  amps: number,
  limitAmps: number,
  from: 'supply' | 'ground',
): Driver | undefined {
  const values = drawerValues(plan.drawer, 47, 100e3);
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
export const isAnode = ({ plan, sheets }: LampContext, placement: string): boolean =>
  partOf(plan, placement, sheets)?.sheet.polarity?.common === 'anode';

const planned = (lamp: Lamp): number => (lamp.ohms === undefined ? lamp.meantAmps : lamp.amps.max);

/** What a digit carries with all its segments lit: as planned where resistors are still missing. */
export function plannedDigitAmps({ plan, sheets }: LampContext, placement: string): number {
  const amps = digitAmps(plan, sheets, placement);
  if (Number.isFinite(amps)) return amps;
  return lampsOf(plan, sheets).reduce((sum, lamp) => sum + (lamp.placement === placement ? planned(lamp) : 0), 0);
}

export const TRANSISTOR_WORDS: { readonly [K in Driver['kind']]: string } = {
  npn: 'NPN transistor',
  pnp: 'PNP transistor',
  nmos: 'N-MOSFET',
  pmos: 'P-MOSFET',
};

export const TRANSISTOR_REMEDY = { transistor: 'Add a transistor ({transistor}, {ohms})' } as const;

/** A transistor for a load other than an LED. */
export function transistorRemedy(context: CheckContext, key: TerminalKey, limit: number): readonly Remedy[] {
  const { placement, terminal } = splitKey(key);
  const load = partOf(context.plan, placement, context.sheets)?.terminals.get(terminal)?.loadMilliamps;
  const driver = load === undefined || context.plan.drivers[key] ? undefined : transistorFor(context, load / 1000, limit, 'ground');
  if (!driver) return [];
  return [
    {
      label: 'transistor',
      data: { transistor: { is: 'words', text: TRANSISTOR_WORDS[driver.kind] }, ohms: { is: 'quantity', value: driver.ohms, unit: 'Ω' } },
      grade: 'offered',
      edits: [{ kind: 'driver', placement, terminal, driver }],
    },
  ];
}
