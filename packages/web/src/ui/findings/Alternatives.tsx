import { Button } from '@mantine/core';
import { useState } from 'react';
import type { Finding } from '@roof-chart/core/checks/engine/check';
import { checkOf } from '@roof-chart/core/checks/engine/registry';
import type { Plan } from '@roof-chart/core/plan/plan';
import { counted } from '@roof-chart/core/quantity/format';
import type { FixAlternative } from '@roof-chart/core/review/fixAlternatives';
import { useAnnounce } from '../announcer';
import { useWorkbench } from '../../state/workbench';
import { Stopped } from '../../workers/restartableWorker';
import { alternativeText } from '@roof-chart/core/text/fixAlternativeText';
import styles from './FindingsRail.module.css';
import { ChangeButton } from './RemedyButton';

/** Time in which alternatives are looked for, in milliseconds. */
const LIMIT = 10_000;

type State =
  { readonly is: 'idle' } | { readonly is: 'busy' } | { readonly is: 'found'; readonly of: Plan; readonly list: readonly FixAlternative[] };

/** Alternatives where no single fix helps; searched on request, because it takes seconds. */
export function Alternatives({ plan, finding }: { readonly plan: Plan; readonly finding: Finding }) {
  const { sheets, workers } = useWorkbench();
  const announce = useAnnounce();
  const [state, setState] = useState<State>({ is: 'idle' });
  const { otherwise } = checkOf(finding.code);
  const ask = () => {
    setState({ is: 'busy' });
    void workers
      .search<readonly FixAlternative[]>((reviewer) => reviewer.fixAlternatives(plan, finding.id, LIMIT))
      .then((list) => {
        setState({ is: 'found', of: plan, list });
        announce(list.length > 0 ? `${counted(list.length, 'alternative')} found.` : 'No alternative found.');
      })
      .catch((error: unknown) => {
        setState({ is: 'idle' });
        if (!(error instanceof Stopped)) throw error;
      });
  };
  const found = state.is === 'found' && state.of === plan ? state.list : undefined;
  return (
    <div className={styles.remedies}>
      <p className={styles.none}>No single fix solves this. {otherwise}</p>
      {state.is === 'busy' ? (
        <>
          <p className={styles.none} role="status">
            Looking for alternatives…
          </p>
          <Button variant="default" size="compact-xs" onClick={() => workers.stopSearch()}>
            Stop
          </Button>
        </>
      ) : found ? (
        <>
          {found.length === 0 && <p className={styles.none}>No other pins, part version or board solves this.</p>}
          {found.map((one, n) => (
            <ChangeButton key={n} plan={plan} edits={one.edits} label={alternativeText(plan, sheets, one)} />
          ))}
        </>
      ) : (
        <Button variant="default" size="compact-xs" onClick={ask}>
          Look for alternatives
        </Button>
      )}
    </div>
  );
}
