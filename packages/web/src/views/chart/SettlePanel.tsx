import { Button } from '@mantine/core';
import { useEffect, useRef } from 'react';
import { Link } from 'react-router';
import { describeFinding } from '@roof-chart/core/text/describe';
import type { Plan } from '@roof-chart/core/plan/plan';
import { conflictText, proofText, wayCosts, wayText, wishText } from '@roof-chart/core/text/assignmentText';
import { useWorkbench } from '../../state/workbench';
import { planChanges } from '@roof-chart/core/text/planChanges';
import { Coming, Leaving } from '../../ui/chart/marks';
import type { Settled } from '../../workers/review.worker';
import styles from './Chart.module.css';
import { countText, wireCounts } from '@roof-chart/core/text/views/assignProposalText';
import type { Settling } from './useSettle';

interface SettlePanelProps {
  readonly plan: Plan;
  readonly proposal: Settled;
  readonly settling: Settling;
}

/** The first of a list, and how many more there are. */
const few = (words: readonly string[]): string =>
  [...words.slice(0, 3), ...(words.length > 3 ? [`${words.length - 3} more`] : [])].join('; ');

/** The marks by which the Chart shows what would change. */
function Legend() {
  return (
    <p className={styles.legend}>
      <span>
        <svg width="16" height="16" aria-hidden>
          <Coming x={8} y={8} />
        </svg>{' '}
        added
      </span>
      <span>
        <svg width="16" height="16" aria-hidden>
          <Leaving x={8} y={8} />
        </svg>{' '}
        removed
      </span>
    </p>
  );
}

/** The proposed pin assignment: changes, proof, accept and refuse. */
export function SettlePanel({ plan, proposal, settling }: SettlePanelProps) {
  const { accept: onAccept, refuse: onRefuse } = settling;
  const { sheets } = useWorkbench();
  const first = useRef<HTMLButtonElement>(null);
  useEffect(() => first.current?.focus(), []);
  return (
    <section
      className={styles.cardTall}
      aria-label="Proposal"
      onKeyDown={(event) => {
        if (event.key === 'Escape') onRefuse();
      }}
    >
      <div className={styles.cardHalf}>
        <div className={styles.cardTitle}>
          <strong>{countText(wireCounts(plan, proposal.plan))}</strong>
          {proposal.edits.length > 0 && (
            <Button ref={first} size="compact-xs" onClick={onAccept}>
              Accept
            </Button>
          )}
          <Button {...(proposal.edits.length === 0 ? { ref: first } : {})} size="compact-xs" variant="default" onClick={onRefuse}>
            {proposal.edits.length > 0 ? 'Refuse' : 'Close'}
          </Button>
        </div>
        <p className={styles.fact}>{proofText(proposal)}</p>
        {proposal.conflict && <p className={styles.trouble}>{conflictText(plan, sheets, proposal.conflict)}</p>}
        {proposal.wishes.length > 0 && (
          <ul className={styles.wishes} aria-label="Preferences">
            {proposal.wishes.map((price) => (
              <li key={wishText(plan, sheets, price)} className={price.met ? styles.fact : styles.trouble}>
                {wishText(plan, sheets, price)}
              </li>
            ))}
          </ul>
        )}
        {proposal.gone.length > 0 && (
          <p className={styles.fact}>Solves: {few(proposal.gone.map((f) => describeFinding(plan, sheets, f).title))}.</p>
        )}
        {proposal.added.length > 0 && (
          <p className={styles.trouble}>New findings: {few(proposal.added.map((f) => describeFinding(proposal.plan, sheets, f).title))}.</p>
        )}
        <Legend />
      </div>
      <div className={styles.cardHalf}>
        {proposal.open.length > 0 && <WaysOut plan={plan} settling={settling} />}
        <ul className={styles.proposed} aria-label="Wires that would change" tabIndex={0}>
          {planChanges(plan, proposal.plan, sheets).map((change) => (
            <li key={change}>{change}</li>
          ))}
        </ul>
      </div>
    </section>
  );
}

/** What could be changed so that everything finds a place; each is solved, and taken as one step. */
function WaysOut({ plan, settling }: { readonly plan: Plan; readonly settling: Settling }) {
  const { sheets } = useWorkbench();
  const { ways } = settling;
  if (!ways)
    return (
      <p className={styles.fact} role="status">
        Searching for alternatives…{' '}
        <Button size="compact-xs" variant="subtle" onClick={settling.cancel}>
          Stop
        </Button>
      </p>
    );
  return (
    <>
      <p className={styles.fact}>
        {ways.length > 0 ? 'Alternatives:' : 'No other part version, expander or shared line makes room.'}{' '}
        <Link to={`/plans/${plan.id}/fits`}>Other boards</Link>
      </p>
      <ul className={styles.ways} aria-label="Alternatives" tabIndex={0}>
        {ways.map((way) => {
          const words = wayText(plan, sheets, way);
          return (
            <li key={words}>
              <Button
                size="compact-xs"
                variant="outline"
                aria-label={`Use this alternative: ${words}`}
                onClick={() => settling.take(way, words)}
              >
                Use
              </Button>
              <span>
                {words} <span className="quiet">({wayCosts(way)})</span>
              </span>
            </li>
          );
        })}
      </ul>
    </>
  );
}
