import { type Lamp, lampsOf } from '../electrics/lamps';
import { type SetDriver, setDriversOf } from '../electrics/setDrivers';
import { partOf } from '../plan/edit';
import { splitKey } from '../plan/plan';
import type { Check, CheckContext, FindingDraft } from './check';
import { byPlacement, FIT_REMEDIES, fitResistors, lampData, lampPlace } from './lampParts';

const lampFinding = (lamps: readonly [Lamp, ...Lamp[]]): FindingDraft => ({
  level: 'clash',
  message: 'none',
  place: lampPlace(lamps[0].placement),
  data: lampData(lamps),
  remedies: () => fitResistors(lamps, 'fit', 'safe'),
});

/** A driver whose segments get their current by a resistor that is not there. */
function driverFinding({ plan, sheets }: CheckContext, { key, placement, fitOhms }: SetDriver): FindingDraft {
  const source = partOf(plan, placement, sheets)?.sheet.currentSet?.source;
  const terminal = { is: 'labels' as const, keys: [key] };
  return {
    level: 'clash',
    message: 'set',
    place: lampPlace(placement),
    data: { placement: { is: 'placement', id: placement }, terminal },
    ...(source ? { source } : {}),
    remedies: () =>
      fitOhms === undefined
        ? []
        : [
            {
              label: 'set',
              data: { ohms: { is: 'quantity', value: fitOhms, unit: 'Ω' }, terminal },
              grade: 'safe',
              edits: [{ kind: 'series', ...splitKey(key), ohms: fitOhms }],
            },
          ],
  };
}

export const ledNoResistor: Check = {
  code: 'led-no-resistor',
  question: 'Has every LED a resistor?',
  lacks: 'resistor',
  messages: {
    none: {
      title: '{placement}: no series resistor',
      text: 'On {terminals}; nothing but the output limits the current.',
      why: 'An LED keeps its forward voltage whatever the current is. What the supply has above that must fall across a resistor: R = (V − VF) / I. Without one, the output and the LED take as much as they can, and one of them does not for long.',
    },
    set: {
      title: '{placement}: no resistor at {terminal}',
      text: 'It sets the current of every segment.',
      why: 'The driver gives each segment a multiple of the current through this resistor; without one it gives none, or all it can. Its datasheet lists the values by current and LED voltage, and between them the next value up gives less.',
    },
  },
  remedies: { ...FIT_REMEDIES, set: 'Put {ohms} to its {terminal}' },
  examine: (context) => [
    ...byPlacement(lampsOf(context.plan, context.sheets).filter((lamp) => lamp.ohms === undefined && lamp.amps.max > 0)).map(lampFinding),
    ...setDriversOf(context.plan, context.sheets)
      .filter((driver) => driver.ohms === undefined)
      .map((driver) => driverFinding(context, driver)),
  ],
};
