import { type LedReport, ledResistor, ledReports, type Load, loadsOf, togetherAmps } from '../../electrics/reports/ledReport';
import type { Check, CheckContext, FindingDraft, Remedy } from '../engine/check';
import { fitResistors } from '../fixes/ledFixes';
import { TRANSISTOR_REMEDY, transistorRemedy } from '../fixes/transistors';

interface Port {
  readonly name: string | undefined;
  readonly limitAmps: number;
  holds(load: Load): boolean;
}

/** Whether a chip port is among those of a list such as "PC0-PC5, ADC6".
 *  @example isAmong('PC3', 'PC0-PC5, ADC6') // true */
export function isAmong(port: string, list: string): boolean {
  return list.split(',').some((one) => {
    const [from = '', to] = one.trim().split('-');
    if (to === undefined) return from === port;
    const [, name, first] = /^(\D+)(\d+)$/.exec(from) ?? [];
    const [, , last] = /^(\D+)(\d+)$/.exec(to) ?? [];
    const [, own, number] = /^(\D+)(\d+)$/.exec(port) ?? [];
    return own !== undefined && own === name && Number(number) >= Number(first) && Number(number) <= Number(last);
  });
}

function portsOf({ board }: CheckContext): readonly Port[] {
  const { totalMilliamps, portSums } = board.sheet.electrical;
  const portAt = (load: Load) => (load.driver.by === 'pin' ? (board.pins.get(load.driver.pin)?.port ?? '') : '');
  const sums = (portSums ?? []).flatMap(({ ports, sinkMilliamps, sourceMilliamps }): Port[] => [
    { name: ports, limitAmps: sinkMilliamps / 1000, holds: (load) => load.sinks && isAmong(portAt(load), ports) },
    ...(sourceMilliamps === undefined
      ? []
      : [{ name: ports, limitAmps: sourceMilliamps / 1000, holds: (load: Load) => !load.sinks && isAmong(portAt(load), ports) }]),
  ]);
  return totalMilliamps === undefined ? sums : [...sums, { name: undefined, limitAmps: totalMilliamps / 1000, holds: () => true }];
}

/** Maximum base current as a fraction of the collector current. */
const BASE_SHARE = 0.15;

/** Loads that go through some pins, and what these carry at most. */
type Loaded = Port & { readonly loads: readonly Load[]; readonly amps: number };

/** Larger resistors for the LEDs on these pins to keep the total within the limit; a transistor for the largest other load. */
function lessCurrent(context: CheckContext, { loads, amps, limitAmps }: Loaded): readonly Remedy[] {
  const { plan, sheets } = context;
  const keys = new Set(loads.map((load) => load.key));
  const digits = new Set(loads.flatMap((load) => load.turn ?? []));
  // The common line of a digit carries what its segments do, wherever these are.
  const leds = ledReports(plan, sheets).filter(
    (led) => led.driver.by === 'pin' && Number.isFinite(led.amps.max) && (keys.has(led.key) || digits.has(led.placement)),
  );
  const others = loads.filter((load) => !leds.some((led) => led.key === load.key) && load.turn === undefined);
  const [largest] = others.toSorted((a, b) => b.amps - a.amps);
  // The base current is subtracted from the saving.
  const enough = largest !== undefined && amps - largest.amps * (1 - BASE_SHARE) <= limitAmps;
  const behind = enough ? transistorRemedy(context, largest.key, limitAmps) : [];
  const left = limitAmps - togetherAmps(others).peak;
  if (leds.length === 0 || left <= 0) return behind;
  const share = left / (amps - togetherAmps(others).peak);
  const limited = leds.map((led): LedReport => ({ ...led, fitOhms: ledResistor(plan, led, led.amps.max * share) }));
  return [...fitResistors(limited, 'less', 'offered'), ...behind];
}

const TEXT = 'Worst case with all loads that can be on together; average {mean}.';

const why =
  'Σ |IO| ≤ limit of the port or of VCC and GND. This limit is lower than the pin limit times the number of pins; only loads that are on at the same time count.';

export const portCurrentOver: Check = {
  code: 'port-current-over',
  harm: true,
  question: 'Are the port and total GPIO currents within the limits of the chip?',
  planWide: true,
  messages: {
    port: { title: 'Port current {amps} ({ports}), limit {limit}', text: TEXT, why },
    chip: {
      title: 'Total GPIO current {amps}, limit {limit}',
      text: TEXT,
      why,
    },
  },
  remedies: { less: 'Add {ohms} in {count}', 'less-each': 'Add {ohms} to {most} in {count}', ...TRANSISTOR_REMEDY },
  examine(context) {
    const loads = loadsOf(context.plan, context.sheets).filter((load) => load.driver.by === 'pin' && Number.isFinite(load.amps));
    const used = portsOf(context).map((port) => {
      const held = loads.filter((load) => port.holds(load));
      const { peak, mean } = togetherAmps(held);
      return { ...port, loads: held, amps: peak, averageAmps: mean, share: peak / port.limitAmps };
    });
    // The fullest of the ports speaks for them, so that the finding stays the same while wires move.
    const fullest = (chip: boolean) =>
      used
        .filter((port) => (port.name === undefined) === chip)
        .reduce<(typeof used)[number] | undefined>((a, b) => (a && a.share >= b.share ? a : b), undefined);
    return [fullest(false), fullest(true)].flatMap((port): FindingDraft[] => {
      if (!port || port.share <= 1 + 1e-9) return [];
      return [
        {
          level: 'risk',
          message: port.name === undefined ? 'chip' : 'port',
          place: { view: 'resistors' },
          data: {
            ports: { is: 'words', text: port.name ?? '' },
            amps: { is: 'quantity', value: port.amps, unit: 'A' },
            mean: { is: 'quantity', value: port.averageAmps, unit: 'A' },
            limit: { is: 'quantity', value: port.limitAmps, unit: 'A' },
          },
          source: context.board.sheet.electrical.source,
          remedies: () => lessCurrent(context, port),
        },
      ];
    });
  },
};
