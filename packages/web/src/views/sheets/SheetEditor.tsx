import clsx from 'clsx';
import { firstOrThrow } from '@roof-chart/core/collections/orThrow';
import { Button, SegmentedControl, Textarea } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useDeferredValue, useMemo, useRef, useState } from 'react';
import { Link, Navigate, useNavigate, useParams, useSearchParams } from 'react-router';
import { counted } from '@roof-chart/core/quantity/format';
import { diffSheets } from '@roof-chart/core/sheets/diffSheets';
import { unsafePlace } from '@roof-chart/core/sheets/unsafePlace';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { readSheet } from '@roof-chart/core/sheets/readSheet';
import { factTitle } from '@roof-chart/core/text/fieldText';
import { useWorkbench } from '../../state/workbench';
import { failureWords, useKeepSheetsMutation } from '../../state/api';
import { BLANK_BOARD } from './blankBoard';
import { BLANK_PART } from './blankPart';
import { isObject, type Json } from '../../state/sheetShape';
import { SheetForm } from './form/SheetForm';
import { placeOf, syntaxFault, type TextPlace } from './jsonPlace';
import { SheetsPage } from './SheetsPage';
import styles from './Sheets.module.css';

interface Fault {
  readonly path: string;
  readonly fault: string;
  readonly place: TextPlace;
}

/** The text as a document, where it is one with fields. */
function parse(text: string): { readonly [key: string]: Json } | undefined {
  if (syntaxFault(text)) return undefined;
  const document = JSON.parse(text) as Json;
  return isObject(document) && !unsafePlace(document) ? document : undefined;
}

/** What is wrong with the text, place by place; the sheet where nothing is. */
function readText(text: string) {
  const syntax = syntaxFault(text);
  if (syntax) return { faults: [{ path: '', ...syntax }] as readonly Fault[] };
  const result = readSheet(JSON.parse(text));
  if (result.ok) return { faults: [] as readonly Fault[], sheet: result.sheet };
  return { faults: result.faults.map((f): Fault => ({ ...f, place: placeOf(text, f.path) })) };
}

/** In place of an id: a sheet from nothing. Sheets with these very ids would be hidden from the editor; none are shipped. */
const BLANKS: { readonly [id: string]: { readonly title: string; readonly sheet: object; readonly kind: 'board' | 'part' } } = {
  'new-part': { title: 'New part', sheet: BLANK_PART, kind: 'part' },
  'blank-board': { title: 'New board', sheet: BLANK_BOARD, kind: 'board' },
};

const draftKey = (id: string, copy: boolean) => `roof-chart-sheet:${copy ? 'copy:' : ''}${id}`;

/** The editor of a sheet, by its fields or as text: faults are shown with their place while typing, and an invalid sheet is not saved.
 *  Drafts stay in this browser until saved or discarded. */
export function SheetEditor() {
  const { id = '' } = useParams();
  const [search] = useSearchParams();
  const copy = search.has('copy');
  // Each sheet has an editor of its own: by the back button one comes from one sheet to another, and its text must not come along.
  return <EditorOf key={draftKey(id, copy)} id={id} copy={copy} />;
}

/** The text that is edited, kept as a draft in this browser. */
function useDraft(key: string, original: string) {
  const [restored] = useState(() => localStorage.getItem(key));
  const [text, setText] = useState(restored ?? original);
  const type = (next: string) => {
    setText(next);
    if (next === original) localStorage.removeItem(key);
    else localStorage.setItem(key, next);
  };
  const isRestored = restored !== null && restored !== original && text === restored;
  return { text, type, isRestored, drop: () => localStorage.removeItem(key) };
}

function Actions({ canSave, isSaving, saveLabel, back, isDirty, onSave }: ActionsProps) {
  return (
    <div className={styles.actions}>
      <Button onClick={onSave} disabled={!canSave} loading={isSaving}>
        {saveLabel}
      </Button>
      <Button variant="default" component={Link} to={back}>
        {isDirty ? 'Close, keep as a draft' : 'Back'}
      </Button>
    </div>
  );
}

interface ActionsProps {
  readonly canSave: boolean;
  readonly isSaving: boolean;
  readonly saveLabel: string;
  readonly back: string;
  readonly isDirty: boolean;
  readonly onSave: () => void;
}

interface FaultsProps {
  readonly kind: 'board' | 'part';
  readonly faults: readonly Fault[];
  /** Whether faults are named by their field, or by their line. */
  readonly byField: boolean;
  readonly onGo: (fault: Fault) => void;
}

/** Whether the sheet is valid, or what is wrong with it: a fault leads to its place. */
function Faults({ kind, faults, byField, onGo }: FaultsProps) {
  return (
    <>
      <div aria-live="polite">
        {faults.length === 0 ? (
          <p className={styles.sound}>Valid.</p>
        ) : (
          <p className={styles.unsound}>{counted(faults.length, 'fault')}:</p>
        )}
      </div>
      <ul className={styles.faults}>
        {faults.slice(0, 50).map((f) => (
          <li key={f.path + f.fault}>
            <button type="button" onClick={() => onGo(f)}>
              {!byField && <span className="num">line {f.place.line}</span>} <b>{byField ? factTitle(kind, f.path, '.') : f.path}</b>
              <span>{f.fault}</span>
            </button>
          </li>
        ))}
      </ul>
    </>
  );
}

/** The facts that are not as they were. */
function Changes({ kind, changes }: { readonly kind: 'board' | 'part'; readonly changes: ReturnType<typeof diffSheets> }) {
  if (changes.length === 0) return null;
  return (
    <>
      <h3 className={styles.small}>Changed facts</h3>
      <ul className={styles.changes}>
        {changes.slice(0, 60).map((c) => (
          <li key={c.path}>
            <b>{factTitle(kind, c.path, '.')}</b> {c.before ?? '(none)'} → {c.after ?? '(none)'}
          </li>
        ))}
      </ul>
    </>
  );
}

/** The sheet by its fields or as text, with a place that is shown. */
function useEditing(text: string, type: (next: string) => void) {
  const [byField, setByField] = useState(true);
  const [shown, setShown] = useState({ path: '', n: 0 });
  const area = useRef<HTMLTextAreaElement>(null);
  const goTo = ({ path, place: { line, start, end } }: Fault) => {
    if (byField) return setShown(({ n }) => ({ path, n: n + 1 }));
    const box = area.current;
    if (!box) return;
    box.focus();
    box.setSelectionRange(start, Math.min(end, start + 200));
    box.scrollTop = Math.max(0, (line - 6) * (box.scrollHeight / text.split('\n').length));
  };
  return { text, type, byField, setByField, shown, area, goTo };
}

function Editing({ text, type, byField, setByField, shown, area, faults }: ReturnType<typeof useEditing> & Pick<FaultsProps, 'faults'>) {
  // The form shows what is typed now, not what was last checked: a field must not lag behind its keys.
  const parsed = byField ? parse(text) : undefined;
  return (
    <>
      <SegmentedControl
        size="xs"
        aria-label="Editing mode"
        className={clsx(styles.how)}
        value={byField ? 'fields' : 'text'}
        onChange={(how) => setByField(how === 'fields')}
        data={[
          { value: 'fields', label: 'Fields' },
          { value: 'text', label: 'Text (JSON)' },
        ]}
      />
      {byField && parsed && (
        <SheetForm document={parsed} faults={faults} shown={shown} onChange={(document) => type(JSON.stringify(document, null, 2))} />
      )}
      {byField && !parsed && <p className={styles.draft}>The text is not valid JSON. Correct it under “Text (JSON)” to see its fields.</p>}
      {!byField && (
        <Textarea
          ref={area}
          aria-label="The sheet as JSON"
          value={text}
          onChange={(event) => type(event.currentTarget.value)}
          spellCheck={false}
          classNames={{ input: clsx(styles.json) }}
        />
      )}
    </>
  );
}

/** What the editor begins with: the sheet, a copy of it under an ID of its own, or a blank one. */
function beginning(sheets: Sheets, id: string, copy: boolean) {
  const blank = BLANKS[id];
  if (blank) return { text: JSON.stringify(blank.sheet, null, 2), title: blank.title, kind: blank.kind, isNew: true, before: undefined };
  const entry = sheets.boards.get(id) ?? sheets.parts.get(id);
  if (!entry) return undefined;
  const { sheet } = entry;
  const text = copy ? { ...sheet, id: `my-${id}`.slice(0, 64), title: `My ${sheet.title}`.slice(0, 80), version: 1 } : sheet;
  return {
    text: JSON.stringify(text, null, 2),
    title: copy ? `Copy of ${sheet.title}` : `Edit ${sheet.title}`,
    kind: sheet.kind,
    isNew: copy,
    before: copy ? undefined : sheet,
  };
}

function EditorOf({ id, copy }: { readonly id: string; readonly copy: boolean }) {
  const { sheets } = useWorkbench();
  const start = useMemo(() => beginning(sheets, id, copy), [sheets, id, copy]);
  return start ? <Editor id={id} copy={copy} start={start} /> : <Navigate to="/sheets" replace />;
}

interface EditorProps {
  readonly id: string;
  readonly copy: boolean;
  readonly start: NonNullable<ReturnType<typeof beginning>>;
}

function Editor({ id, copy, start }: EditorProps) {
  const navigate = useNavigate();
  const [keep, keeping] = useKeepSheetsMutation();
  const draft = useDraft(draftKey(id, copy), start.text);
  const editing = useEditing(draft.text, draft.type);
  const deferredText = useDeferredValue(draft.text);
  const { faults, sheet } = useMemo(() => readText(deferredText), [deferredText]);
  const changes = useMemo(() => (sheet && start.before ? diffSheets(start.before, sheet) : []), [sheet, start]);
  const save = async () => {
    if (!sheet) return;
    const result = await keep([sheet]);
    if (result.error) return void notifications.show({ message: failureWords(result.error), color: 'brick', autoClose: false });
    draft.drop();
    const { version, how } = firstOrThrow(result.data.sheets);
    notifications.show({ message: how === 'same' ? 'No changes to save.' : `“${sheet.title}” saved as version ${version}.` });
    void navigate(`/sheets/${sheet.id}`);
  };
  return (
    <SheetsPage title={start.title}>
      <div className={styles.editor}>
        <section aria-label="The sheet">
          {draft.isRestored && (
            <p className={styles.draft}>
              Unsaved changes from your last visit.{' '}
              <Button variant="subtle" onClick={() => draft.type(start.text)}>
                Discard them
              </Button>
            </p>
          )}
          <Editing {...editing} faults={faults} />
        </section>
        <aside aria-label="State of the sheet" className={styles.state}>
          <Actions
            canSave={sheet !== undefined && deferredText === draft.text}
            isSaving={keeping.isLoading}
            saveLabel={start.isNew ? 'Save to my sheets' : 'Save as a new version'}
            back={BLANKS[id] ? '/sheets' : `/sheets/${id}`}
            isDirty={draft.text !== start.text}
            onSave={() => void save()}
          />
          <Faults kind={start.kind} faults={faults} byField={editing.byField} onGo={editing.goTo} />
          <Changes kind={start.kind} changes={changes} />
          {start.isNew && (
            <p className="quiet">The ID must be new: lower-case letters, digits and dashes. Plans refer to the sheet by it.</p>
          )}
        </aside>
      </div>
    </SheetsPage>
  );
}
