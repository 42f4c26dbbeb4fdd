import clsx from 'clsx';
import { Button, Popover } from '@mantine/core';
import { useState } from 'react';
import type { Alternative } from '@roof-chart/core/assign/explain';
import { isUsualAt } from '@roof-chart/core/assign/fit/usual';
import type { Plan } from '@roof-chart/core/plan/plan';
import { alternativeText } from '@roof-chart/core/text/assignmentText';
import type { Role } from '@roof-chart/core/sheets/roles';
import { sourceLine } from '@roof-chart/core/sheets/source';
import type { IndexedBoard } from '@roof-chart/core/sheets/sheetIndex';
import { useWorkbench } from '../../state/workbench';
import { Stopped } from '../../workers/restartableWorker';
import styles from './Chart.module.css';

interface WhyHereProps {
  readonly plan: Plan;
  readonly board: IndexedBoard;
  readonly terminal: string;
  readonly role: Role;
}

interface AlternativesProps {
  readonly board: IndexedBoard;
  readonly list: readonly Alternative[];
  /** The pin that the signal is on. */
  readonly here: string | undefined;
}

function Alternatives({ board, list, here }: AlternativesProps) {
  return (
    <table>
      <thead>
        <tr>
          <th scope="col">Pin</th>
          <th scope="col">Additional cost there</th>
        </tr>
      </thead>
      <tbody>
        {list.map((one) => (
          <tr key={one.pin}>
            <th scope="row" className="mono">
              {board.pins.get(one.pin)?.label ?? one.pin}
            </th>
            <td>
              {alternativeText(one)}
              {one.pin === here && <strong> (here now)</strong>}
            </td>
          </tr>
        ))}
        {list.length === 0 && (
          <tr>
            <td colSpan={2}>No other pin can serve this signal.</td>
          </tr>
        )}
      </tbody>
    </table>
  );
}

/** Every possible pin of a signal with its cost relative to the free assignment. */
export function WhyHere({ plan, board, terminal, role }: WhyHereProps) {
  const { workers } = useWorkbench();
  const [found, setFound] = useState<{ readonly of: string; readonly list: readonly Alternative[] } | null>(null);
  const end = plan.wires[terminal]?.end;
  const key = `${terminal} ${JSON.stringify(end)}`;
  const list = found?.of === key ? found.list : null;
  const here = end?.to === 'pin' ? (board.pins.get(end.pin)?.sameAs ?? end.pin) : undefined;
  const ask = () => {
    void workers
      .search<readonly Alternative[]>((reviewer) => reviewer.alternatives(plan, terminal))
      .then((alternatives) => setFound({ of: key, list: alternatives }))
      // Stopped together with its plan.
      .catch((error: unknown) => {
        if (!(error instanceof Stopped)) throw error;
      });
  };
  return (
    <Popover position="top-start" withinPortal shadow="sm" trapFocus transitionProps={{ duration: 0 }} onOpen={ask}>
      <Popover.Target>
        <Button size="compact-xs" variant="default">
          Why here?
        </Button>
      </Popover.Target>
      <Popover.Dropdown className={clsx(styles.why)} aria-label="Cost of each pin">
        {!list && (
          <p className={styles.fact} role="status">
            Trying every pin…
          </p>
        )}
        {here !== undefined && board.sheet.usual && isUsualAt(board, role, here) && (
          <p className={styles.fact}>
            The usual pin for this signal on this board. <span className="quiet">{sourceLine(board.sheet.usual.source)}</span>
          </p>
        )}
        {list && <Alternatives board={board} list={list} here={here} />}
      </Popover.Dropdown>
    </Popover>
  );
}
