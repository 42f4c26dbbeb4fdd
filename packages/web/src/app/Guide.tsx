import clsx from 'clsx';
import { Button, CloseButton } from '@mantine/core';
import { IconArrowRight, IconCheck } from '@tabler/icons-react';
import { Link, useLocation } from 'react-router';
import type { Plan } from '@roof-chart/core/plan/plan';
import { guideActions } from '../state/guideSlice';
import { selectFindingCounts, selectReviewed } from '../state/selectors';
import { useAppDispatch, useAppSelector } from '../state/store';
import { useWorkbench } from '../state/workbench';
import styles from './Guide.module.css';
import { guideSteps } from './guideSteps';
import { Hint } from '../ui/Hint';

/** The guide of the guided example, above its views; nothing in all other plans. */
export function Guide() {
  const guided = useAppSelector((state) => state.guide.planId);
  const plan = useAppSelector((state) => state.document.plan);
  return plan && guided === plan.id ? <Guided plan={plan} /> : null;
}

function useErrors(plan: Plan): number | undefined {
  const reviewed = useAppSelector(selectReviewed);
  const { clash } = useAppSelector(selectFindingCounts);
  return reviewed?.result.ok && reviewed.plan === plan ? clash : undefined;
}

function Guided({ plan }: { readonly plan: Plan }) {
  const { sheets } = useWorkbench();
  const dispatch = useAppDispatch();
  const { pathname } = useLocation();
  const steps = guideSteps(plan, sheets, useErrors(plan));
  const at = steps.findIndex(({ isDone }) => !isDone);
  const step = steps[at];
  const view = step?.view && !pathname.endsWith(`/${step.view.path}`) ? step.view : undefined;
  return (
    <section className={styles.guide} aria-label="Guided example">
      <ol className={styles.steps} aria-label="Steps">
        {steps.map(({ title, isDone }, n) => (
          <li key={title} aria-current={n === at ? 'step' : undefined} className={n === at ? styles.now : isDone ? styles.done : undefined}>
            {isDone ? <IconCheck size={13} aria-label="done" /> : <span className="num">{n + 1}</span>} {title}
          </li>
        ))}
      </ol>
      <div className={styles.row} role="status">
        {step ? (
          <>
            <p className={styles.text}>{step.text}</p>
            {view && (
              <Button component={Link} to={`/plans/${plan.id}/${view.path}`} size="compact-sm" rightSection={<IconArrowRight size={14} />}>
                Open {view.label}
              </Button>
            )}
          </>
        ) : (
          <>
            <p className={styles.text}>
              From parts to build sheet. Next: the hole plan and the wiring picture in Build, and Bring-up once it is wired. This plan stays
              among yours.
            </p>
            <Button component={Link} to={`/plans/${plan.id}/build?mode=holes`} size="compact-sm" variant="default">
              Hole plan
            </Button>
          </>
        )}
      </div>
      <Hint label="Leave the guide; the plan stays">
        <CloseButton
          className={clsx(styles.close)}
          aria-label="Leave the guided example"
          onClick={() => void dispatch(guideActions.guideLeft())}
        />
      </Hint>
    </section>
  );
}
