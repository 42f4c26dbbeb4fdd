import { Link } from 'react-router';
import { findNets } from '@roof-chart/core/nets/nets';
import { openTerminals } from '@roof-chart/core/nets/openTerminals';
import { planTerminals } from '@roof-chart/core/nets/terminals';
import type { Plan } from '@roof-chart/core/plan/plan';
import styles from './Steps.module.css';
import { useReviewed, useWorkbench } from './workbench';

interface Step {
  readonly label: string;
  readonly note: string;
  readonly to: string;
  readonly done: boolean;
}

function useSteps(plan: Plan): readonly Step[] {
  const { sheets } = useWorkbench();
  const reviewed = useReviewed();
  const findings = reviewed?.result.ok ? reviewed.result.review.findings : [];
  const open = openTerminals(planTerminals(plan, sheets), findNets(plan, sheets)).length;
  const wires = Object.keys(plan.wires).length;
  const clashes = findings.filter((f) => f.level === 'clash' && f.code !== 'terminal-unwired').length;
  const ticked = Object.keys(plan.ticks).length;
  const parts = plan.placements.length;
  return [
    { label: 'Board', note: 'chosen', to: 'chart', done: true },
    { label: 'Parts', note: parts === 0 ? 'add some' : String(parts), to: 'stock', done: parts > 0 },
    { label: 'Wires', note: open > 0 ? `${open} open` : String(wires), to: 'chart', done: wires > 0 && open === 0 },
    { label: 'Findings', note: clashes > 0 ? `${clashes} to solve` : 'none grave', to: 'chart', done: wires > 0 && clashes === 0 },
    { label: 'Build', note: `${ticked} of ${wires}`, to: 'build', done: wires > 0 && ticked >= wires },
  ];
}

/** The way from board to build as five quiet steps; any of them may be taken at any time. */
export function Steps({ plan }: { readonly plan: Plan }) {
  const steps = useSteps(plan);
  const next = steps.findIndex((step) => !step.done);
  return (
    <ol className={styles.steps} aria-label="The way to a finished build">
      {steps.map((step, at) => (
        <li key={step.label}>
          <Link
            to={`/plans/${plan.id}/${step.to}`}
            className={at === next ? styles.next : styles.step}
            aria-current={at === next ? 'step' : undefined}
          >
            <span>{step.label}</span>
            <span className={styles.note}>{step.note}</span>
          </Link>
        </li>
      ))}
    </ol>
  );
}
