import { planChanges } from '@roof-chart/core/outputs/planChanges';
import type { Plan } from '@roof-chart/core/plan/plan';
import { changedWires } from '@roof-chart/core/review/previewEdits';
import { useWorkbench } from '../../state/workbench';
import { wireText } from '@roof-chart/core/text/editPreviewText';
import styles from './Versions.module.css';

/** The changes from this plan to another one. */
export function PlanDifference({ plan, kept }: { readonly plan: Plan; readonly kept: Plan }) {
  const { sheets } = useWorkbench();
  const others = planChanges(plan, kept, sheets);
  const wires = changedWires(plan, kept);
  // A terminal of a part that only one of the two plans has is named after that one.
  const owner = (key: string) => (plan.placements.some((p) => key.startsWith(`${p.id}:`)) ? plan : kept);
  if (wires.length + others.length === 0) return <p className="quiet">Identical to the current plan.</p>;
  return (
    <div className={styles.difference}>
      <ul>
        {others.map((words) => (
          <li key={words}>{words}</li>
        ))}
        {wires.map((wire) => (
          <li key={wire.terminal}>{wireText(owner(wire.terminal), sheets, wire)}</li>
        ))}
      </ul>
    </div>
  );
}
