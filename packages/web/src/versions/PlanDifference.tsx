import { sayPlacement } from '@roof-chart/core/checks/say';
import type { Plan } from '@roof-chart/core/plan/plan';
import { changedWires } from '@roof-chart/core/review/previewEdits';
import { useWorkbench } from '../app/workbench';
import { wireWords } from '../findings/previewWords';
import styles from './Versions.module.css';

/** What would change if another plan came in the place of this one, wire by wire and part by part. */
export function PlanDifference({ plan, kept }: { readonly plan: Plan; readonly kept: Plan }) {
  const { sheets } = useWorkbench();
  const names = (a: Plan, b: Plan) =>
    a.placements.filter((p) => !b.placements.some((q) => q.id === p.id)).map((p) => sayPlacement(a, p.id));
  const [back, gone] = [names(kept, plan), names(plan, kept)];
  const wires = changedWires(plan, kept);
  // A terminal of a part that only one of the two plans has is named after that one.
  const owner = (key: string) => (plan.placements.some((p) => key.startsWith(`${p.id}:`)) ? plan : kept);
  if (wires.length + back.length + gone.length === 0) return <p className="quiet">Wires and parts are the same as now.</p>;
  return (
    <div className={styles.difference}>
      {back.length > 0 && <p>Parts that would come back: {back.join(', ')}.</p>}
      {gone.length > 0 && <p>Parts that would go: {gone.join(', ')}.</p>}
      {wires.length > 0 && (
        <ul>
          {wires.map((wire) => (
            <li key={wire.terminal}>{wireWords(owner(wire.terminal), sheets, wire)}</li>
          ))}
        </ul>
      )}
    </div>
  );
}
