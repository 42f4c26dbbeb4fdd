import { useMemo } from 'react';
import type { Bus } from '@roof-chart/core/nets/buses';
import { boardOrThrow } from '@roof-chart/core/plan/edit';
import type { Plan } from '@roof-chart/core/plan/plan';
import { counted, formatSi } from '@roof-chart/core/quantity/format';
import { i2cReport } from '@roof-chart/core/review/i2cReport';
import { useWorkbench } from '../../state/workbench';
import { Addresses } from './Addresses';
import styles from './Buses.module.css';
import { BusPlaceMenu } from './BusPlaceMenu';
import { PullUps } from './PullUps';
import { Second } from './Second';

/** The sheet of one I2C bus: who answers where, what pulls the lines up, and how busy it is. */
export function I2cView({ plan, bus }: { readonly plan: Plan; readonly bus: Bus }) {
  const { sheets } = useWorkbench();
  const sheet = useMemo(() => i2cReport(plan, sheets, bus), [plan, sheets, bus]);
  if (!sheet) return null;
  const board = boardOrThrow(plan, sheets);
  const pins = Object.entries(bus.pins)
    .map(([line, pin]) => `${board.pins.get(pin)?.label ?? pin} ${line.toUpperCase()}`)
    .join(', ');
  return (
    <>
      <div className={styles.head}>
        <p className={styles.facts}>
          {pins} · {counted(sheet.addresses.length, 'part')} · {formatSi(sheet.time.hz, 'Hz')}
        </p>
        <BusPlaceMenu plan={plan} bus={bus} />
      </div>
      <Addresses plan={plan} bus={bus} rows={sheet.addresses} />
      {sheet.segments.map((segment) => (
        <PullUps key={segment.segment.id} plan={plan} sheet={segment} connected={bus.controller !== undefined} />
      ))}
      <Second plan={plan} sheet={sheet} />
    </>
  );
}
