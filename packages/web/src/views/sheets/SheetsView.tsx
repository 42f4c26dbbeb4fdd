import clsx from 'clsx';
import { firstOrThrow } from '@roof-chart/core/collections/orThrow';
import { Button, FileButton, UnstyledButton } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useDeferredValue, useMemo, useState } from 'react';
import { Link, NavLink, useNavigate, useParams } from 'react-router';
import type { BoardSheet } from '@roof-chart/core/sheets/boardSheet';
import { FAMILIES, type PartSheet } from '@roof-chart/core/sheets/partSheet';
import { searchParts } from '@roof-chart/core/sheets/searchParts';
import { useWorkbench } from '../../state/workbench';
import { failureWords, useCatalogueQuery, useKeepSheetsMutation } from '../../state/api';
import { FAMILY_TEXT } from '@roof-chart/core/text/partText';
import { download } from '../../ui/download';
import { SearchField } from '../../ui/SearchField';
import { readImport } from './readImport';
import { Pictures } from './Pictures';
import { SheetCard } from './SheetCard';
import styles from './Sheets.module.css';
import { SheetsPage } from './SheetsPage';

type Shown = 'all' | 'boards' | 'parts' | 'own';
const SHOWN: readonly (readonly [Shown, string])[] = [
  ['all', 'All'],
  ['boards', 'Boards'],
  ['parts', 'Parts'],
  ['own', 'My sheets'],
];

const fitsBoard = (board: BoardSheet, query: string): boolean => {
  const hay = `${board.title} ${board.chip} ${board.form} ${board.summary} ${board.id}`.toLowerCase();
  return query
    .toLowerCase()
    .split(/\s+/)
    .every((word) => hay.includes(word));
};

interface Section {
  readonly head: string;
  readonly sheets: readonly (BoardSheet | PartSheet)[];
}

function useSections(query: string, shown: Shown, own: ReadonlySet<string>): readonly Section[] {
  const { sheets } = useWorkbench();
  return useMemo(() => {
    const keep = (sheet: BoardSheet | PartSheet) => shown !== 'own' || own.has(sheet.id);
    const boards =
      shown === 'parts'
        ? []
        : [...sheets.boards.values()]
            .map((b) => b.sheet)
            .filter((b) => fitsBoard(b, query) && keep(b))
            .sort((a, b) => a.title.localeCompare(b.title));
    const all = [...sheets.parts.values()].map((p) => p.sheet);
    const parts = shown === 'boards' ? [] : searchParts(all, query).filter(keep);
    const families = query.trim()
      ? [{ head: 'Parts', sheets: parts }]
      : FAMILIES.map((f) => ({ head: FAMILY_TEXT[f], sheets: parts.filter((p) => p.family === f) }));
    return [{ head: 'Boards', sheets: boards }, ...families].filter((section) => section.sheets.length > 0);
  }, [sheets, query, shown, own]);
}

function Importer() {
  const navigate = useNavigate();
  const [keep] = useKeepSheetsMutation();
  const take = async (file: File | null) => {
    if (!file) return;
    const read = readImport(await file.text(), file.name);
    const tell = (message: string) => void notifications.show({ message, color: 'brick', autoClose: false });
    if (!read.ok) return tell(read.words);
    const result = await keep(read.sheets);
    if (result.error) return tell(failureWords(result.error));
    const { sheets } = result.data;
    notifications.show({ message: sheets.map((s) => `${s.id}: ${s.how === 'same' ? 'no changes' : `version ${s.version}`}`).join('; ') });
    void navigate(`/sheets/${firstOrThrow(sheets).id}`);
  };
  return (
    <FileButton accept="application/json,.json" onChange={(file) => void take(file)} inputProps={{ 'aria-label': 'Sheet file to import' }}>
      {(props) => (
        <Button variant="default" {...props}>
          Import file
        </Button>
      )}
    </FileButton>
  );
}

/** Brings sheets in, takes own ones out, and begins new ones. */
function Tools({ own }: { readonly own: ReadonlySet<string> }) {
  const { sheets } = useWorkbench();
  const bundle = () =>
    download('my-sheets.json', {
      sheets: [...sheets.boards.values(), ...sheets.parts.values()].map((s) => s.sheet).filter((s) => own.has(s.id)),
    });
  return (
    <>
      {own.size > 0 && (
        <Button variant="subtle" onClick={bundle}>
          Download my sheets
        </Button>
      )}
      <Importer />
      <Button variant="default" component={Link} to="/sheets/new-part/edit">
        New part
      </Button>
      <Button variant="default" component={Link} to="/sheets/blank-board/edit">
        New board
      </Button>
      <Button component={Link} to="/sheets/new-board">
        New board from pin table
      </Button>
    </>
  );
}

interface IndexProps {
  readonly own: ReadonlySet<string>;
  readonly sections: readonly Section[];
  readonly query: string;
  readonly onQuery: (query: string) => void;
  readonly shown: Shown;
  readonly onShown: (shown: Shown) => void;
}

function SectionLinks({ section: { head, sheets }, own }: { readonly section: Section; readonly own: ReadonlySet<string> }) {
  return (
    <div>
      <h2 className={styles.sectionHead}>
        {head} <span className="num">{sheets.length}</span>
      </h2>
      <ul>
        {sheets.map((sheet) => (
          <li key={sheet.id}>
            <NavLink to={`/sheets/${sheet.id}`} className={({ isActive }) => clsx(isActive ? styles.linkOn : styles.link)}>
              {sheet.title}
              {own.has(sheet.id) && <span className={styles.ownMark}> own</span>}
            </NavLink>
          </li>
        ))}
      </ul>
    </div>
  );
}

/** The list of sheets, with what is looked for. */
function Index({ own, sections, query, onQuery, shown, onShown }: IndexProps) {
  return (
    <nav className={styles.index} aria-label="Sheets">
      <SearchField label="Search sheets" placeholder="Name, chip, label, address…" value={query} onChange={onQuery} />
      <div className={styles.filter} role="group" aria-label="Which sheets">
        {SHOWN.map(([value, words]) => (
          <UnstyledButton
            key={value}
            aria-pressed={shown === value}
            className={shown === value ? styles.filterOn : styles.filterOff}
            onClick={() => onShown(value)}
          >
            {words}
          </UnstyledButton>
        ))}
      </div>
      {sections.length === 0 && (
        <p className="quiet">
          {shown === 'own' && own.size === 0
            ? 'No sheets of your own yet. Copy one from the library, import a file, or paste the pin table of your board.'
            : `No sheet matches “${query}”.`}
        </p>
      )}
      {sections.map((section) => (
        <SectionLinks key={section.head} section={section} own={own} />
      ))}
    </nav>
  );
}

/** The library and the user's own sheets. */
export function SheetsView() {
  const { id } = useParams();
  const { sheets } = useWorkbench();
  const catalogue = useCatalogueQuery();
  const own = useMemo(() => new Set(catalogue.data?.own ?? []), [catalogue.data]);
  const [query, setQuery] = useState('');
  const [shown, setShown] = useState<Shown>('all');
  const sections = useSections(useDeferredValue(query), shown, own);
  const entry = id ? (sheets.boards.get(id) ?? sheets.parts.get(id)) : undefined;
  return (
    <SheetsPage title="Library" tools={<Tools own={own} />}>
      <div className={styles.columns}>
        <Index own={own} sections={sections} query={query} onQuery={setQuery} shown={shown} onShown={setShown} />
        <div className={styles.cardBox}>
          {entry ? (
            <SheetCard key={entry.sheet.id} entry={entry} own={own.has(entry.sheet.id)} />
          ) : id ? (
            <p className={styles.hello}>No sheet {id}. It may have been removed.</p>
          ) : (
            <>
              <p className={styles.hello}>
                {sheets.boards.size} boards and {sheets.parts.size} parts. Choose one to see its facts, their trust level and their sources.
              </p>
              <Pictures sections={sections} />
            </>
          )}
        </div>
      </div>
    </SheetsPage>
  );
}
