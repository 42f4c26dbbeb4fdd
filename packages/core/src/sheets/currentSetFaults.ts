import type { PartSheet } from './partSheet';

/** The usual current of a driver must be one that its table has a resistance for. */
export function currentSetFaults({ currentSet }: PartSheet): readonly { readonly path: string; readonly fault: string }[] {
  if (!currentSet) return [];
  const { rows, usualMilliamps } = currentSet;
  const currents = rows.map(({ milliamps }) => milliamps);
  const [least, most] = [Math.min(...currents), Math.max(...currents)];
  return usualMilliamps >= least && usualMilliamps <= most
    ? []
    : [{ path: 'currentSet.usualMilliamps', fault: `${usualMilliamps} mA: the table covers ${least} mA to ${most} mA` }];
}
