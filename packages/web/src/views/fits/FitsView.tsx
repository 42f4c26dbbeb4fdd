import clsx from 'clsx';
import { Tabs } from '@mantine/core';
import { useNavigate, useParams } from 'react-router';
import { useOpenPlan } from '../../state/store';
import { BoardRanking } from './BoardRanking';
import styles from './Fits.module.css';
import { PartSweep } from './PartSweep';

/** Which boards could carry these parts, and which further parts this board could carry. */
export function FitsView() {
  const plan = useOpenPlan();
  const { side } = useParams();
  const navigate = useNavigate();
  const shown = side === 'parts' ? 'parts' : 'boards';
  return (
    <Tabs
      className={clsx(styles.view)}
      value={shown}
      keepMounted={false}
      onChange={(value) => void navigate(`/plans/${plan.id}/fits${value === 'parts' ? '/parts' : ''}`)}
    >
      <Tabs.List>
        <Tabs.Tab value="boards">Which board</Tabs.Tab>
        <Tabs.Tab value="parts">What else fits</Tabs.Tab>
      </Tabs.List>
      <Tabs.Panel value="boards" className={clsx(styles.panel)}>
        <BoardRanking plan={plan} />
      </Tabs.Panel>
      <Tabs.Panel value="parts" className={clsx(styles.panel)}>
        <PartSweep plan={plan} />
      </Tabs.Panel>
    </Tabs>
  );
}
