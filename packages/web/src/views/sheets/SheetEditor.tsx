import { Button, SegmentedControl, Textarea } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useDeferredValue, useMemo, useRef, useState } from 'react';
import { Link, Navigate, useNavigate, useParams, useSearchParams } from 'react-router';
import { counted } from '@roof-chart/core/quantity/format';
import { diffSheets } from '@roof-chart/core/sheets/diffSheets';
import { unsafePlace } from '@roof-chart/core/sheets/unsafePlace';
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

function EditorOf({ id, copy }: { readonly id: string; readonly copy: boolean }) {
  const { sheets } = useWorkbench();
  const navigate = useNavigate();
  const [keep, keeping] = useKeepSheetsMutation();
  const blank = BLANKS[id];
  const entry = sheets.boards.get(id) ?? sheets.parts.get(id);
  const original = useMemo(() => {
    if (blank) return JSON.stringify(blank.sheet, null, 2);
    if (!entry) return '';
    const sheet = copy
      ? { ...entry.sheet, id: `my-${id}`.slice(0, 64), title: `My ${entry.sheet.title}`.slice(0, 80), version: 1 }
      : entry.sheet;
    return JSON.stringify(sheet, null, 2);
  }, [entry, id, copy, blank]);
  const [restored] = useState(() => localStorage.getItem(draftKey(id, copy)));
  const [text, setText] = useState(restored ?? original);
  const [fields, setFields] = useState(true);
  const [shown, setShown] = useState({ path: '', n: 0 });
  const area = useRef<HTMLTextAreaElement>(null);
  const asked = useDeferredValue(text);
  const { faults, sheet } = useMemo(() => readText(asked), [asked]);
  const changes = useMemo(() => (sheet && !copy && entry ? diffSheets(entry.sheet, sheet) : []), [sheet, copy, entry]);
  if (!entry && !blank) return <Navigate to="/sheets" replace />;

  const type = (next: string) => {
    setText(next);
    if (next === original) localStorage.removeItem(draftKey(id, copy));
    else localStorage.setItem(draftKey(id, copy), next);
  };
  const goTo = ({ path, place: { line, start, end } }: Fault) => {
    if (fields) return setShown(({ n }) => ({ path, n: n + 1 }));
    const box = area.current;
    if (!box) return;
    box.focus();
    box.setSelectionRange(start, Math.min(end, start + 200));
    box.scrollTop = Math.max(0, (line - 6) * (box.scrollHeight / text.split('\n').length));
  };
  const save = async () => {
    if (!sheet) return;
    const result = await keep([sheet]);
    if (result.error) return void notifications.show({ message: failureWords(result.error), color: 'brick', autoClose: false });
    localStorage.removeItem(draftKey(id, copy));
    const { version, how } = result.data.sheets[0]!;
    notifications.show({ message: how === 'same' ? 'No changes to save.' : `“${sheet.title}” saved as version ${version}.` });
    void navigate(`/sheets/${sheet.id}`);
  };
  const kind = blank?.kind ?? entry!.sheet.kind;
  const dirty = text !== original;
  // The form shows what is typed now, not what was last checked: a field must not lag behind its keys.
  const parsed = fields ? parse(text) : undefined;
  return (
    <SheetsPage title={blank ? blank.title : copy ? `Copy of ${entry!.sheet.title}` : `Edit ${entry!.sheet.title}`}>
      <div className={styles.editor}>
        <section aria-label="The sheet">
          {restored !== null && restored !== original && text === restored && (
            <p className={styles.draft}>
              Unsaved changes from your last visit.{' '}
              <Button variant="subtle" onClick={() => type(original)}>
                Discard them
              </Button>
            </p>
          )}
          <SegmentedControl
            size="xs"
            aria-label="Editing mode"
            className={styles.how!}
            value={fields ? 'fields' : 'text'}
            onChange={(how) => setFields(how === 'fields')}
            data={[
              { value: 'fields', label: 'Fields' },
              { value: 'text', label: 'Text (JSON)' },
            ]}
          />
          {fields && parsed && (
            <SheetForm document={parsed} faults={faults} shown={shown} onChange={(document) => type(JSON.stringify(document, null, 2))} />
          )}
          {fields && !parsed && (
            <p className={styles.draft}>The text is not valid JSON. Correct it under “Text (JSON)” to see its fields.</p>
          )}
          {!fields && (
            <Textarea
              ref={area}
              aria-label="The sheet as JSON"
              value={text}
              onChange={(event) => type(event.currentTarget.value)}
              spellCheck={false}
              classNames={{ input: styles.json! }}
            />
          )}
        </section>
        <aside aria-label="State of the sheet" className={styles.state}>
          <div className={styles.actions}>
            <Button onClick={() => void save()} disabled={!sheet || asked !== text} loading={keeping.isLoading}>
              {copy || blank ? 'Save to my sheets' : 'Save as a new version'}
            </Button>
            <Button variant="default" component={Link} to={blank ? '/sheets' : `/sheets/${id}`}>
              {dirty ? 'Close, keep as a draft' : 'Back'}
            </Button>
          </div>
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
                <button type="button" onClick={() => goTo(f)}>
                  {!fields && <span className="num">line {f.place.line}</span>} <b>{fields ? factTitle(kind, f.path, '.') : f.path}</b>
                  <span>{f.fault}</span>
                </button>
              </li>
            ))}
          </ul>
          {changes.length > 0 && (
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
          )}
          {(copy || blank) && (
            <p className="quiet">The ID must be new: lower-case letters, digits and dashes. Plans refer to the sheet by it.</p>
          )}
        </aside>
      </div>
    </SheetsPage>
  );
}
