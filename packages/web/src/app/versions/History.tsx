import { lastOrThrow } from '@roof-chart/core/collections/orThrow';
import { capitalised } from '@roof-chart/core/quantity/format';
import { Button } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useEffect, useState } from 'react';
import { useWorkbench } from '../../state/workbench';
import type { HistoryEntry } from '@roof-chart/api/history';
import { failureWords, useHistoryQuery, useLazyHistoryQuery, useLazyHistoryStepQuery } from '../../state/api';
import { useAppSelector } from '../../state/store';
import { tabId } from '../../state/tabIdentity';
import styles from './Versions.module.css';

const PAGE = 100;

/** Who made it: this tab, or a browser with its tab. */
function authorText({ device, tab }: HistoryEntry, own: string | null): string {
  if (device === null) return 'another program';
  return tab === own ? 'this tab' : `${device}, ${tab}`;
}

/** The name of this tab; null for a moment. */
function useTabId(): string | null {
  const [own, setOwn] = useState<string | null>(null);
  useEffect(() => {
    void tabId().then(setOwn);
  }, []);
  return own;
}

interface EntryProps {
  readonly planId: string;
  readonly entry: HistoryEntry;
  readonly ownTab: string | null;
}

function Entry({ planId, entry, ownTab }: EntryProps) {
  const { edit } = useWorkbench();
  const [load, loading] = useLazyHistoryStepQuery();
  const label = capitalised(entry.label ?? `edit ${entry.revision}`);
  const takeBack = async () => {
    const step = await load({ plan: planId, revision: entry.revision });
    if (step.data) edit(step.data.inverse, `revert “${label}”`);
    else notifications.show({ message: failureWords(step.error), color: 'brick' });
  };
  return (
    <li className={styles.version}>
      <div className={styles.line}>
        <span className={styles.name}>{label}</span>
        <span className="quiet">{authorText(entry, ownTab)}</span>
        <time className="quiet num" dateTime={entry.at}>
          {new Date(entry.at).toLocaleString()}
        </time>
        <Button
          size="compact-xs"
          variant="default"
          aria-label={`Revert ${label}`}
          disabled={!entry.kept}
          title={entry.kept ? 'Reverts only this step, if later steps allow it' : 'Too old: the edits of this step are no longer stored'}
          loading={loading.isFetching}
          onClick={() => void takeBack()}
        >
          Revert
        </Button>
      </div>
    </li>
  );
}

/** The history; a single step can be reverted if later steps allow it. */
export function History({ planId }: { readonly planId: string }) {
  // Refetched whenever the server has more.
  const revision = useAppSelector((state) => state.document.revision);
  return <HistoryList key={revision} planId={planId} />;
}

function HistoryList({ planId }: { readonly planId: string }) {
  const first = useHistoryQuery({ plan: planId }, { refetchOnMountOrArgChange: true });
  const [more, loadingMore] = useLazyHistoryQuery();
  const ownTab = useTabId();
  const [older, setOlder] = useState<readonly HistoryEntry[]>([]);
  if (first.isError) return <p className={styles.error}>{failureWords(first.error)}</p>;
  if (!first.data) return <p className="quiet">Loading the history.</p>;
  const entries = [...first.data.entries, ...older];
  if (entries.length === 0) return <p className="quiet">No changes yet. Every edit will be listed here with the window it was made in.</p>;
  const last = lastOrThrow(entries).revision;
  const loadOlder = async () => {
    const page = await more({ plan: planId, before: last });
    if (page.data) setOlder([...older, ...page.data.entries]);
  };
  return (
    <>
      <ul className={styles.list}>
        {entries.map((entry) => (
          <Entry key={entry.revision} planId={planId} entry={entry} ownTab={ownTab} />
        ))}
      </ul>
      {last > 2 && entries.length >= PAGE && (
        <Button size="compact-xs" variant="default" loading={loadingMore.isFetching} onClick={() => void loadOlder()}>
          Show older
        </Button>
      )}
    </>
  );
}
