import clsx from 'clsx';
import { Button, SegmentedControl, UnstyledButton } from '@mantine/core';
import { memo } from 'react';
import { costText } from '@roof-chart/core/text/costText';
import { counted } from '@roof-chart/core/quantity/format';
import type { PlanTerminal } from '@roof-chart/core/nets/terminals';
import type { Plan } from '@roof-chart/core/plan/plan';
import { sessionActions, type WireScope } from '../../state/sessionSlice';
import { useAppDispatch, useAppSelector } from '../../state/store';
import styles from './Chart.module.css';
import { inScope } from './chartModel';
import type { Settling } from './useSettle';
import { Hint } from '../../ui/Hint';

/** Kept apart from the numbers around it, which change with every edit. */
const ScopeControl = memo(function ScopeControl({
  scope,
  signals,
  supplies,
}: {
  readonly scope: WireScope;
  readonly signals: number;
  readonly supplies: number;
}) {
  const dispatch = useAppDispatch();
  return (
    <SegmentedControl
      size="xs"
      className={clsx(styles.scope)}
      aria-label="Wires shown"
      value={scope}
      onChange={(value) => dispatch(sessionActions.scopeChosen(value as WireScope))}
      data={[
        { value: 'signals', label: `Signals ${signals}` },
        { value: 'supplies', label: `Power ${supplies}` },
        { value: 'all', label: 'All' },
      ]}
    />
  );
});

/** The corner above the row heads: counts, pin assignment, and the filter of wires. */
export function Corner({
  plan,
  items,
  scope,
  open,
  freeWords,
  settling,
}: {
  readonly plan: Plan;
  readonly items: readonly PlanTerminal[];
  readonly scope: WireScope;
  readonly open: number;
  readonly freeWords: string;
  readonly settling: Settling;
}) {
  const dispatch = useAppDispatch();
  const roomy = useAppSelector((state) => state.session.roomy);
  const auto = useAppSelector((state) => state.session.auto);
  const wired = items.filter((item) => item.wire).length;
  const count = (s: WireScope) => items.filter((item) => inScope(item, s)).length;
  return (
    <>
      <div className={styles.cornerTitle}>
        <span className={styles.cornerCount} title={`${counted(wired, 'wire')}, ${open} open`}>
          {open > 0 ? `${open} open` : counted(wired, 'wire')}
        </span>
        <Hint label="Assigns pins after every change without asking; the wire you have just made stays">
          <UnstyledButton
            className={auto ? styles.autoOn : styles.auto}
            aria-pressed={auto}
            onClick={() => dispatch(sessionActions.autoChosen(!auto))}
          >
            Auto-assign
          </UnstyledButton>
        </Hint>
        <UnstyledButton className={styles.density} aria-pressed={roomy} onClick={() => dispatch(sessionActions.densityChosen(!roomy))}>
          {roomy ? 'Smaller rows' : 'Larger rows'}
        </UnstyledButton>
      </div>
      <p className={styles.cornerText}>{freeWords || `${counted(plan.placements.length, 'part')} on this board`}</p>
      <div className={styles.settle}>
        <SettleButton settling={settling} />
        <ScopeControl scope={scope} signals={count('signals')} supplies={count('supplies')} />
      </div>
    </>
  );
}

/** Requests a proposal; stops a running search. */
function SettleButton({ settling }: { readonly settling: Settling }) {
  const { progress } = settling;
  if (progress)
    return (
      <Hint label={progress.best ? `Best so far: ${costText(progress.best)}` : 'No solution yet'}>
        <Button size="compact-xs" variant="outline" onClick={settling.cancel}>
          Stop searching
        </Button>
      </Hint>
    );
  return (
    <Hint label="Assigns all pins optimally, with a preview (S)">
      <Button size="compact-xs" onClick={settling.ask} loading={settling.busy} disabled={settling.proposal !== null}>
        Assign pins
      </Button>
    </Hint>
  );
}
