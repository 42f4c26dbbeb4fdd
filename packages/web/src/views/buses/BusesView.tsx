import clsx from 'clsx';
import { Button, Tabs } from '@mantine/core';
import { useMemo } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { type Bus, findBuses } from '@roof-chart/core/nets/buses';
import { otherLines } from '@roof-chart/core/electrics/reports/otherLines';
import { boardOrThrow } from '@roof-chart/core/plan/edit';
import { useWorkbench } from '../../state/workbench';
import { useOpenPlan } from '../../state/store';
import styles from './Buses.module.css';
import { I2cView } from './I2cView';
import { OtherLinesView } from './OtherLinesView';
import { busLabel } from '@roof-chart/core/text/views/busPlaceText';
import { SpiView } from './SpiView';

/** The tab of everything that is no bus of controllers. */
const OTHERS = 'lines';

/** One sheet for each bus of the plan. */
export function BusesView() {
  const plan = useOpenPlan();
  const { sheets } = useWorkbench();
  const { bus: wanted } = useParams();
  const navigate = useNavigate();
  const board = boardOrThrow(plan, sheets);
  const buses = useMemo(() => findBuses(plan, sheets).filter((bus) => bus.kind !== 'uart'), [plan, sheets]);
  const others = useMemo(() => otherLines(plan, sheets, board), [plan, sheets, board]);
  const keyOf = (bus: Bus) => bus.controller ?? bus.id.replaceAll(':', '-');
  const titleOf = (bus: Bus) => busLabel(board, bus);
  if (buses.length === 0 && others.length === 0)
    return (
      <div className={styles.empty}>
        <h2>No bus yet</h2>
        <p>Connect a part with I2C, SPI, serial or 1-Wire lines to see its addresses, pull-ups, clock and bus load here.</p>
        <Button component={Link} to={`/plans/${plan.id}/chart`}>
          Open the Chart
        </Button>
      </div>
    );
  const shown = wanted === OTHERS ? undefined : (buses.find((bus) => keyOf(bus) === wanted) ?? buses[0]);
  const tab = shown ? keyOf(shown) : OTHERS;
  return (
    <Tabs className={clsx(styles.view)} value={tab} keepMounted={false} onChange={(key) => void navigate(`/plans/${plan.id}/buses/${key}`)}>
      <Tabs.List>
        {buses.map((bus) => (
          <Tabs.Tab key={bus.id} value={keyOf(bus)}>
            {titleOf(bus)}
          </Tabs.Tab>
        ))}
        {others.length > 0 && <Tabs.Tab value={OTHERS}>Other lines</Tabs.Tab>}
      </Tabs.List>
      <Tabs.Panel value={tab} className={clsx(styles.panel)}>
        {!shown && <OtherLinesView plan={plan} all={others} />}
        {shown?.kind === 'i2c' && <I2cView plan={plan} bus={shown} />}
        {shown?.kind === 'spi' && <SpiView plan={plan} board={board} bus={shown} />}
      </Tabs.Panel>
    </Tabs>
  );
}
