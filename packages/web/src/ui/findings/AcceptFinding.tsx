import { Button, Textarea, UnstyledButton } from '@mantine/core';
import { useState } from 'react';
import type { Finding } from '@roof-chart/core/checks/engine/check';
import { PLAN_LIMITS } from '@roof-chart/core/plan/plan';
import { useWorkbench } from '../../state/workbench';
import styles from './FindingsRail.module.css';

interface AcceptFindingProps {
  readonly finding: Finding;
  readonly title: string;
}

/** The reason for which a finding was accepted, which can be withdrawn. */
function Reason({ finding, title, reason, head }: AcceptFindingProps & { readonly reason: string; readonly head: string }) {
  const { edit } = useWorkbench();
  return (
    <p className={styles.text}>
      <em>{head}:</em> {reason}{' '}
      <UnstyledButton
        className={styles.why}
        onClick={() => edit([{ kind: 'accept', finding: finding.id, reason: null }], `withdraw acceptance: ${title}`)}
      >
        Withdraw
      </UnstyledButton>
    </p>
  );
}

/** Accepts a warning or a note with a reason, which is saved in the plan. */
export function AcceptFinding({ finding, title }: AcceptFindingProps) {
  const { edit } = useWorkbench();
  const [draft, setDraft] = useState<string | null>(null);
  if (finding.accepted !== undefined) return <Reason finding={finding} title={title} reason={finding.accepted} head="Accepted" />;
  if (finding.acceptedBefore !== undefined)
    return <Reason finding={finding} title={title} reason={finding.acceptedBefore} head="Accepted as a warning, now an error" />;
  if (finding.level === 'clash') return null;
  if (draft === null) {
    return (
      <UnstyledButton className={styles.why} onClick={() => setDraft('')}>
        Accept
      </UnstyledButton>
    );
  }
  return (
    <form
      className={styles.accept}
      onSubmit={(event) => {
        event.preventDefault();
        if (edit([{ kind: 'accept', finding: finding.id, reason: draft.trim() }], `accept: ${title}`)) setDraft(null);
      }}
    >
      <Textarea
        autoFocus
        autosize
        minRows={2}
        size="xs"
        label="Reason for accepting"
        maxLength={PLAN_LIMITS.reasonLength}
        value={draft}
        onChange={(event) => setDraft(event.currentTarget.value)}
      />
      <Button type="submit" size="compact-xs" disabled={!draft.trim()}>
        Accept with this reason
      </Button>{' '}
      <Button size="compact-xs" variant="subtle" onClick={() => setDraft(null)}>
        Cancel
      </Button>
    </form>
  );
}
