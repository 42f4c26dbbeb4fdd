import { Button, Tabs } from '@mantine/core';
import { useMemo } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { type Bus, findBuses } from '@roof-chart/core/nets/buses';
import { boardOf } from '@roof-chart/core/plan/edit';
import { useWorkbench } from '../../app/workbench';
import { useAppSelector } from '../../store/store';
import styles from './Buses.module.css';
import { I2cView } from './I2cView';
import { OtherBus } from './OtherBus';

/** One sheet for each bus of the plan. */
export function BusesView() {
  const plan = useAppSelector((state) => state.document.plan)!;
  const { sheets } = useWorkbench();
  const { bus: wanted } = useParams();
  const navigate = useNavigate();
  const buses = useMemo(() => findBuses(plan, sheets), [plan, sheets]);
  const board = boardOf(plan, sheets)!;
  const keyOf = (bus: Bus) => bus.controller ?? bus.id.replaceAll(':', '-');
  const titleOf = (bus: Bus) =>
    (bus.controller ? board.controllers.get(bus.controller)?.title : undefined) ?? `${bus.kind.toUpperCase()}, no controller`;
  if (buses.length === 0)
    return (
      <div className={styles.empty}>
        <h2>No bus yet</h2>
        <p>Wire a part with I2C, SPI or serial lines, and its bus gets a sheet here: addresses, pull-ups, and how busy it is.</p>
        <Button component={Link} to={`/plans/${plan.id}/chart`}>
          Open the Chart
        </Button>
      </div>
    );
  const shown = buses.find((bus) => keyOf(bus) === wanted) ?? buses[0]!;
  return (
    <Tabs
      className={styles.view!}
      value={keyOf(shown)}
      keepMounted={false}
      onChange={(key) => void navigate(`/plans/${plan.id}/buses/${key}`)}
    >
      <Tabs.List>
        {buses.map((bus) => (
          <Tabs.Tab key={bus.id} value={keyOf(bus)}>
            {titleOf(bus)}
          </Tabs.Tab>
        ))}
      </Tabs.List>
      <Tabs.Panel value={keyOf(shown)} className={styles.panel!}>
        {shown.kind === 'i2c' ? <I2cView plan={plan} bus={shown} /> : <OtherBus plan={plan} bus={shown} />}
      </Tabs.Panel>
    </Tabs>
  );
}
