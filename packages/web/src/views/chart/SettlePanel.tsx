import { Button } from '@mantine/core';
import { useEffect, useRef } from 'react';
import { sayFinding } from '@roof-chart/core/checks/say';
import type { Plan } from '@roof-chart/core/plan/plan';
import { changedWires } from '@roof-chart/core/review/previewEdits';
import { useWorkbench } from '../../app/workbench';
import { wireWords } from '../../findings/previewWords';
import { Coming, Leaving } from '../../hang/marks';
import type { Settled } from '../../review/review.worker';
import styles from './Chart.module.css';
import { conflictWords, countWords, proofWords, wireCounts } from './settleWords';

interface SettlePanelProps {
  readonly plan: Plan;
  readonly proposal: Settled;
  readonly onAccept: () => void;
  readonly onRefuse: () => void;
}

/** What settling would change, what it proved, and the two answers to it. */
export function SettlePanel({ plan, proposal, onAccept, onRefuse }: SettlePanelProps) {
  const { sheets } = useWorkbench();
  const first = useRef<HTMLButtonElement>(null);
  useEffect(() => first.current?.focus(), []);
  const wires = changedWires(plan, proposal.plan);
  return (
    <section
      className={styles.card}
      aria-label="Proposal"
      onKeyDown={(event) => {
        if (event.key === 'Escape') onRefuse();
      }}
    >
      <div className={styles.cardHalf}>
        <div className={styles.cardTitle}>
          <strong>{countWords(wireCounts(plan, proposal.plan))}</strong>
          {proposal.edits.length > 0 && (
            <Button ref={first} size="compact-xs" onClick={onAccept}>
              Accept
            </Button>
          )}
          <Button {...(proposal.edits.length === 0 ? { ref: first } : {})} size="compact-xs" variant="default" onClick={onRefuse}>
            {proposal.edits.length > 0 ? 'Refuse' : 'Close'}
          </Button>
        </div>
        <p className={styles.fact}>{proofWords(proposal)}</p>
        {proposal.conflict && <p className={styles.trouble}>{conflictWords(plan, sheets, proposal.conflict)}</p>}
        {proposal.gone.length > 0 && (
          <p className={styles.fact}>Solves: {proposal.gone.map((f) => sayFinding(plan, sheets, f).title).join('; ')}.</p>
        )}
        {proposal.added.length > 0 && (
          <p className={styles.trouble}>But then: {proposal.added.map((f) => sayFinding(proposal.plan, sheets, f).title).join('; ')}.</p>
        )}
        <p className={styles.legend}>
          <span>
            <svg width="16" height="16" aria-hidden>
              <Coming x={8} y={8} />
            </svg>{' '}
            would come
          </span>
          <span>
            <svg width="16" height="16" aria-hidden>
              <Leaving x={8} y={8} />
            </svg>{' '}
            would go
          </span>
        </p>
      </div>
      <div className={styles.cardHalf}>
        <ul className={styles.proposed} aria-label="Wires that would change" tabIndex={0}>
          {wires.map((wire) => (
            <li key={wire.terminal}>{wireWords(proposal.plan, sheets, wire)}</li>
          ))}
        </ul>
      </div>
    </section>
  );
}
