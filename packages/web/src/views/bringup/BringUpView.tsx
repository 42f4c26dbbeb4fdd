import clsx from 'clsx';
import { Button, Progress } from '@mantine/core';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { counted } from '@roof-chart/core/quantity/format';
import { verifiedOf } from '@roof-chart/core/bench/verified';
import { useWorkbench } from '../../state/workbench';
import { useOpenPlan } from '../../state/store';
import styles from './BringUp.module.css';
import { FirstLightList } from './FirstLightList';
import { LiveBench } from './LiveBench';
import { ScanCheck } from './ScanCheck';

/** The bench compared with the plan. */
export function BringUpView() {
  const plan = useOpenPlan();
  const { sheets } = useWorkbench();
  const { parts, verified, wires, sure } = useMemo(() => verifiedOf(plan, sheets), [plan, sheets]);
  const notes = Object.keys(plan.benchNotes).length;
  if (plan.placements.length === 0)
    return (
      <div className={styles.empty}>
        <h2>No parts to test yet</h2>
        <p>Add parts first. Then compare the circuit on the bench with the plan here: expected behaviour of each part, bus scan, probe.</p>
        <Button component={Link} to={`/plans/${plan.id}/stock`}>
          Add parts
        </Button>
      </div>
    );
  return (
    <div className={styles.view}>
      <div className={styles.top}>
        <h2 className={styles.title}>Bring-up</h2>
        <span className="quiet num">
          {verified} of {parts} parts verified on the bench
          {wires > 0 ? `, ${sure} of ${counted(wires, 'wire')} confirmed` : ''}
        </span>
        <Progress
          className={clsx(styles.share)}
          value={(100 * verified) / parts}
          size="sm"
          aria-label="Parts verified on the bench"
          transitionDuration={0}
        />
        <Link to={`/plans/${plan.id}/facts`}>{notes === 0 ? 'Bench notes' : `Bench notes (${notes})`}</Link>
      </div>
      <section aria-label="Bus scan">
        <h3>Bus scan</h3>
        <ScanCheck plan={plan} />
      </section>
      <section aria-label="Live bench">
        <h3>Live bench</h3>
        <LiveBench plan={plan} />
      </section>
      <section aria-label="First power-up">
        <h3>First power-up</h3>
        <FirstLightList plan={plan} />
      </section>
    </div>
  );
}
