import { lastOrThrow, orThrow } from '@roof-chart/core/collections/orThrow';
import { Button, Select } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { BoardSheet } from '@roof-chart/core/sheets/boardSheet';
import type { PartSheet } from '@roof-chart/core/sheets/partSheet';
import { diffSheets } from '@roof-chart/core/sheets/diffSheets';
import type { IndexedBoard, IndexedPart } from '@roof-chart/core/sheets/sheetIndex';
import { factTitle } from '@roof-chart/core/text/fieldText';
import { useWorkbench } from '../../state/workbench';
import { failureWords, useRemoveSheetMutation, useSheetPlansQuery } from '../../state/api';
import { BoardFacts } from './BoardFacts';
import { download } from '../../ui/download';
import { Group, ListTable } from './FactTable';
import { PartFacts } from './PartFacts';
import { SheetFace } from './SheetFace';
import styles from './Sheets.module.css';

/** Plans that use the sheet, each with its version. */
function Uses({ id, newest }: { readonly id: string; readonly newest: number }) {
  const uses = useSheetPlansQuery(id, { refetchOnMountOrArgChange: true });
  const plans = uses.data?.plans ?? [];
  if (plans.length === 0) return <p className="quiet">Not used in any plan.</p>;
  return (
    <p>
      Used by{' '}
      {plans.map((use, at) => (
        <span key={use.plan}>
          {at > 0 && ', '}
          <Link to={`/plans/${use.plan}/stock`}>{use.name}</Link>
          {use.versions.some((v) => v < newest) && <span className={styles.weak}> uses version {use.versions.join(', ')}</span>}
        </span>
      ))}
      .
    </p>
  );
}

/** What changed between two versions, fact by fact. */
function Versions({ versions }: { readonly versions: readonly (IndexedBoard | IndexedPart)[] }) {
  const newest = lastOrThrow(versions).sheet;
  const [from, setFrom] = useState(String(orThrow(versions.at(-2), 'earlier version').sheet.version));
  const before = versions.find((v) => String(v.sheet.version) === from)?.sheet ?? newest;
  const changes = diffSheets(before, newest);
  return (
    <Group title="Versions">
      <Select
        label={`Changes up to version ${newest.version}, since`}
        data={versions.slice(0, -1).map((v) => ({ value: String(v.sheet.version), label: `version ${v.sheet.version}` }))}
        value={from}
        onChange={(value) => value && setFrom(value)}
        allowDeselect={false}
        maw={280}
      />
      <ListTable
        label="Changed facts"
        heads={['Fact', 'Before', 'Now']}
        rows={changes.map((c) => [factTitle(newest.kind, c.path, '.'), c.before ?? '(none)', c.after ?? '(none)'])}
      />
    </Group>
  );
}

/** What can be done with a sheet. */
function SheetActions({ sheet, own }: { readonly sheet: BoardSheet | PartSheet; readonly own: boolean }) {
  const navigate = useNavigate();
  const [remove] = useRemoveSheetMutation();
  const onRemove = async () => {
    const result = await remove(sheet.id);
    if (result.error) notifications.show({ message: failureWords(result.error), color: 'brick' });
    else {
      download(`${sheet.id}.json`, sheet);
      notifications.show({ message: `“${sheet.title}” removed. Its last version was downloaded; import it to restore the sheet.` });
      void navigate('/sheets');
    }
  };
  return (
    <div className={styles.actions}>
      {own ? (
        <Button component={Link} to={`/sheets/${sheet.id}/edit`}>
          Edit
        </Button>
      ) : (
        <Button component={Link} to={`/sheets/${sheet.id}/edit?copy`}>
          Copy to my sheets
        </Button>
      )}
      <Button variant="default" onClick={() => download(`${sheet.id}.json`, sheet)}>
        Download
      </Button>
      {own && (
        <Button variant="subtle" color="brick" onClick={() => void onRemove()}>
          Remove
        </Button>
      )}
    </div>
  );
}

/** One sheet with every fact and its source. */
export function SheetCard({ entry, own }: { readonly entry: IndexedBoard | IndexedPart; readonly own: boolean }) {
  const { sheet } = entry;
  const { sheets } = useWorkbench();
  const versions = [...sheets.versions.values()].filter((v) => v.sheet.id === sheet.id).sort((a, b) => a.sheet.version - b.sheet.version);
  return (
    <article className={styles.card} aria-label={sheet.title}>
      <header className={styles.cardHead}>
        <div>
          <h2>{sheet.title}</h2>
          <p className="quiet">{sheet.summary}</p>
          <p className={styles.idLine}>
            <span className="mono">{sheet.id}</span>, version <span className="num">{sheet.version}</span>,{' '}
            {own ? 'your own' : 'from the library'}, chip <span className="mono">{sheet.chip}</span>
          </p>
          <Uses id={sheet.id} newest={sheet.version} />
        </div>
        <SheetActions sheet={sheet} own={own} />
      </header>
      {sheet.unknown.length > 0 && (
        <div className={styles.unknown}>
          <b>Unknown facts, left out or assumed:</b>
          <ul>
            {sheet.unknown.map((words) => (
              <li key={words}>{words}</li>
            ))}
          </ul>
        </div>
      )}
      {versions.length > 1 && <Versions key={sheet.id} versions={versions} />}
      <SheetFace sheet={entry.sheet} />
      {'pins' in entry ? <BoardFacts board={entry} /> : <PartFacts part={entry.sheet} />}
    </article>
  );
}
