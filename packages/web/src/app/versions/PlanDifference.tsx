import { planChanges } from '@roof-chart/core/text/planChanges';
import type { Plan } from '@roof-chart/core/plan/plan';
import { useWorkbench } from '../../state/workbench';
import styles from './Versions.module.css';

/** The changes from this plan to another one. */
export function PlanDifference({ plan, kept }: { readonly plan: Plan; readonly kept: Plan }) {
  const { sheets } = useWorkbench();
  const changes = planChanges(plan, kept, sheets);
  if (changes.length === 0) return <p className="quiet">Identical to the current plan.</p>;
  return (
    <div className={styles.difference}>
      <ul>
        {changes.map((change) => (
          <li key={change}>{change}</li>
        ))}
      </ul>
    </div>
  );
}
