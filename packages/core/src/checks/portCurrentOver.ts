import { type Load, loadsOf } from '../electrics/lamps';
import type { Check, CheckContext, FindingDraft } from './check';

interface Port {
  readonly name: string | undefined;
  readonly limitAmps: number;
  holds(load: Load): boolean;
}

/** Whether a chip port is among those of a list such as "PC0-PC5, ADC6".
 *  @example isAmong('PC3', 'PC0-PC5, ADC6') // true */
export function isAmong(port: string, list: string): boolean {
  return list.split(',').some((one) => {
    const [from, to] = one.trim().split('-');
    if (to === undefined) return from === port;
    const [, name, first] = /^(\D+)(\d+)$/.exec(from!) ?? [];
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

const why =
  'The chip’s supply and ground lines carry what all its pins give and take. The sums are limits of their own, below the limit of one pin times their number; what counts is what is on at the same time.';

export const portCurrentOver: Check = {
  code: 'port-current-over',
  question: 'Do the pins of a port, and all pins together, carry no more than the chip can?',
  whole: true,
  messages: {
    port: { title: 'Pins of {ports} have to carry {amps} and can {limit}', text: 'If all of it is on at once, at the worst corner.', why },
    chip: {
      title: 'All pins together have to carry {amps} and can {limit}',
      text: 'If all of it is on at once, at the worst corner.',
      why,
    },
  },
  remedies: {},
  examine(context) {
    const loads = loadsOf(context.plan, context.sheets).filter((load) => load.driver.by === 'pin' && Number.isFinite(load.amps));
    const used = portsOf(context).map((port) => {
      const amps = loads.filter((load) => port.holds(load)).reduce((sum, load) => sum + load.amps, 0);
      return { ...port, amps, share: amps / port.limitAmps };
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
            limit: { is: 'quantity', value: port.limitAmps, unit: 'A' },
          },
          source: context.board.sheet.electrical.source,
          remedies: () => [],
        },
      ];
    });
  },
};
