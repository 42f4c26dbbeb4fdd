import { useMemo } from 'react';
import { spiReport } from '@roof-chart/core/electrics/reports/spiReport';
import type { Bus } from '@roof-chart/core/nets/buses';
import type { IndexedBoard } from '@roof-chart/core/sheets/sheetIndex';
import type { Plan } from '@roof-chart/core/plan/plan';
import { counted, formatSi } from '@roof-chart/core/quantity/format';
import { percent } from '@roof-chart/core/text/views/busText';
import { useWorkbench } from '../../state/workbench';
import styles from './Buses.module.css';
import { BusPlaceMenu } from './BusPlaceMenu';
import { SpiClocks } from './SpiClocks';
import { SpiLines } from './SpiLines';
import { SpiLoad } from './SpiLoad';

/** The report of an SPI bus: lines and chip selects with all parts, daisy chains in wiring order, the clock of each part with its
 *  limiting factor, bus load. */
export function SpiView({ plan, board, bus }: { readonly plan: Plan; readonly board: IndexedBoard; readonly bus: Bus }) {
  const { sheets } = useWorkbench();
  const sheet = useMemo(() => spiReport(plan, sheets, board, bus), [plan, sheets, board, bus]);
  const maker = bus.controller !== undefined && board.controllers.get(bus.controller)?.software ? 'program' : 'controller';
  return (
    <>
      <div className={styles.head}>
        <p className={styles.facts}>
          {counted(sheet.rows.length, 'chip select')} ·{' '}
          {sheet.controllerHz
            ? `${maker} up to ${formatSi(sheet.controllerHz, 'Hz')}${maker === 'program' ? ', compiled' : ''}`
            : 'no controller'}{' '}
          · bus load {percent(sheet.share)}
        </p>
        <BusPlaceMenu plan={plan} bus={bus} />
      </div>
      <SpiLines plan={plan} bus={bus} sheet={sheet} />
      <SpiClocks plan={plan} bus={bus} sheet={sheet} maker={maker} />
      <SpiLoad plan={plan} sheet={sheet} />
    </>
  );
}
