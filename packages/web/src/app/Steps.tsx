import { memo } from 'react';
import { Link } from 'react-router';
import { findNets } from '@roof-chart/core/nets/nets';
import { openTerminals } from '@roof-chart/core/nets/openTerminals';
import { planTerminals } from '@roof-chart/core/nets/terminals';
import type { Plan } from '@roof-chart/core/plan/plan';
import { buildProgress } from '@roof-chart/core/outputs/buildProgress';
import { counted } from '@roof-chart/core/quantity/format';
import styles from './Steps.module.css';
import { selectReviewed, selectSortedFindings } from '../state/selectors';
import { useAppSelector } from '../state/store';
import { useWorkbench } from '../state/workbench';

interface Step {
  readonly label: string;
  readonly note: string;
  readonly to: string;
  readonly done: boolean;
}

interface Counts {
  readonly parts: number;
  readonly wires: number;
  readonly open: number;
  readonly ticked: number;
  /** Without those of unconnected terminals, which the step before counts. Undefined until the checks have answered. */
  readonly clashes: number | undefined;
}

function findingsNote({ clashes, open }: Pick<Counts, 'clashes' | 'open'>): string {
  if (clashes === undefined) return 'checking…';
  if (clashes > 0) return counted(clashes, 'error');
  return open > 0 ? 'no other errors' : 'no errors';
}

function useCounts(plan: Plan): Counts {
  const { sheets } = useWorkbench();
  const { open } = useAppSelector(selectSortedFindings);
  const isChecked = useAppSelector((state) => selectReviewed(state)?.result.ok === true);
  return {
    open: openTerminals(planTerminals(plan, sheets), findNets(plan, sheets)).length,
    clashes: isChecked ? open.filter(({ level, code }) => level === 'clash' && code !== 'terminal-unwired').length : undefined,
    ...buildProgress(plan, sheets),
    parts: plan.placements.length,
  };
}

function stepsOf({ parts, wires, open, ticked, clashes }: Counts): readonly Step[] {
  return [
    { label: 'Board', note: 'chosen', to: 'chart', done: true },
    { label: 'Parts', note: parts === 0 ? 'add parts' : String(parts), to: 'stock', done: parts > 0 },
    { label: 'Wires', note: open > 0 ? `${open} unconnected` : String(wires), to: 'chart', done: wires > 0 && open === 0 },
    {
      label: 'Findings',
      note: findingsNote({ clashes, open }),
      to: 'chart',
      done: wires > 0 && clashes === 0,
    },
    { label: 'Build', note: `${ticked} of ${wires}`, to: 'build', done: wires > 0 && ticked >= wires },
  ];
}

/** The way from board to build as five quiet steps; any of them may be taken at any time. */
export function Steps() {
  const plan = useAppSelector((state) => state.document.plan);
  return plan && <Counted plan={plan} />;
}

function Counted({ plan }: { readonly plan: Plan }) {
  return <StepList planId={plan.id} {...useCounts(plan)} />;
}

/** Drawn anew only where a number changes: most edits move a wire. */
const StepList = memo(function StepList({ planId, ...counts }: Counts & { readonly planId: string }) {
  const steps = stepsOf(counts);
  const next = steps.findIndex((step) => !step.done);
  return (
    <ol className={styles.steps} aria-label="Progress of the plan">
      {steps.map((step, at) => (
        <li key={step.label}>
          <Link
            to={`/plans/${planId}/${step.to}`}
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
});
