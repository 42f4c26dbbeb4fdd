import clsx from 'clsx';
import { Button } from '@mantine/core';
import { useDeferredValue, useMemo, useState } from 'react';
import { NavLink, useParams, useSearchParams } from 'react-router';
import { counted } from '@roof-chart/core/quantity/format';
import { type BenchNote, covers, noteKey } from '@roof-chart/core/sheets/benchNote';
import type { BoardSheet } from '@roof-chart/core/sheets/boardSheet';
import { type Fact, factsOf, type FactValue } from '@roof-chart/core/sheets/factPath';
import { factName, factTitle } from '@roof-chart/core/text/fieldText';
import { bareSheets } from '@roof-chart/core/sheets/notedSheets';
import type { PartSheet } from '@roof-chart/core/sheets/partSheet';
import { boardSheet, boardSheetOrThrow, partSheet, type Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { sourceLine, type Sourced } from '@roof-chart/core/sheets/source';
import type { Plan } from '@roof-chart/core/plan/plan';
import { useWorkbench } from '../../state/workbench';
import { useOpenPlan } from '../../state/store';
import styles from './Facts.module.css';
import { factValueText, valueText } from '../../ui/factFields';
import { SearchField } from '../../ui/SearchField';
import { NoteForm } from './NoteForm';

type Sheet = BoardSheet | PartSheet;

/** The sheets of a plan as they were kept, board first, each once. */
function sheetsOf(plan: Plan, kept: Sheets): readonly Sheet[] {
  const parts = plan.placements.flatMap((p) => partSheet(kept, p.sheet)?.sheet ?? []);
  return [...new Set<Sheet>([...(boardSheet(kept, plan.board) ? [boardSheetOrThrow(kept, plan.board).sheet] : []), ...parts])];
}

interface FactGroup {
  readonly name: string;
  readonly sourced: Sourced;
  readonly facts: readonly Fact[];
}

/** Groups that say how a board or part looks: behind those that say how it works. */
const LOOKS: ReadonlySet<string> = new Set(['traits', 'shape']);

function groupsOf(sheet: Sheet): readonly FactGroup[] {
  const groups = Object.entries(sheet).flatMap(([name, value]): FactGroup[] => {
    if (typeof value !== 'object' || value === null || !('source' in value)) return [];
    const { source: _, ...facts } = value as Sourced;
    return [{ name, sourced: value as Sourced, facts: factsOf(facts, name).filter((fact) => !fact.path.endsWith('/id')) }];
  });
  return groups.toSorted((a, b) => Number(LOOKS.has(a.name)) - Number(LOOKS.has(b.name)));
}

function FactRow({
  kind,
  fact,
  note,
  onNote,
  onRemove,
}: {
  readonly kind: Sheet['kind'];
  readonly fact: Fact;
  readonly note: BenchNote | undefined;
  readonly onNote: () => void;
  readonly onRemove: () => void;
}) {
  const { labels, unit } = factName(kind, fact.path);
  const name = labels.slice(1).join(' › ');
  const shown = (value: FactValue) => factValueText(value, fact.path, unit);
  return (
    <tr>
      <th scope="row">{name}</th>
      <td className="num">
        {note?.value === undefined ? (
          shown(fact.value)
        ) : (
          <>
            <b>{shown(note.value)}</b> <s>{shown(fact.value)}</s>
          </>
        )}
      </td>
      <td>
        {note && (
          <span className={styles.note}>
            {note.value === undefined ? 'Confirmed' : 'Found'} {note.date}: {note.words}
          </span>
        )}
      </td>
      <td className={styles.rowActions}>
        <Button size="compact-xs" variant="subtle" onClick={onNote} aria-label={`Bench note on ${labels.join(' › ')}`}>
          {note ? 'Change' : 'Note'}
        </Button>
        {note && (
          <Button
            size="compact-xs"
            variant="subtle"
            color="gray"
            c="var(--quiet)"
            onClick={onRemove}
            aria-label={`Remove the note on ${labels.join(' › ')}`}
          >
            Remove
          </Button>
        )}
      </td>
    </tr>
  );
}

interface Asked {
  readonly fact: string;
  readonly value: FactValue | undefined;
}

/** Facts beyond this many are folded until they are looked for. */
const MANY = 60;

interface GroupFactsProps {
  readonly sheet: Sheet;
  readonly plan: Plan;
  readonly group: FactGroup;
  /** Whether it is unfolded whatever its length. */
  readonly isFound: boolean;
  readonly onNote: (deferredQuery: Asked) => void;
  readonly onTake: (fact: string, note: null) => void;
}

/** A group of facts with its source, and the notes on them. */
function GroupFacts({ sheet, plan, group, isFound, onNote, onTake }: GroupFactsProps) {
  const { source } = group.sourced;
  const noteOf = (fact: string) => plan.benchNotes[noteKey(sheet.id, fact)];
  const whole = noteOf(group.name);
  const title = factTitle(sheet.kind, group.name);
  const isSettled = group.facts.every((fact) =>
    Object.values(plan.benchNotes).some((note) => note.sheet === sheet.id && covers(note, fact.path)),
  );
  return (
    <details className={styles.group} open={isFound || group.facts.length <= MANY}>
      <summary>
        {title} <span className="quiet num">{group.facts.length}</span>
        {source.trust === 'typical' && (
          <span className={isSettled ? styles.settled : styles.typical}>{isSettled ? 'confirmed' : 'unverified'}</span>
        )}
      </summary>
      <p className={styles.source}>
        {sourceLine(source)}
        {source.note ? `. ${source.note}` : ''}
      </p>
      {whole ? (
        <p className={styles.note}>
          Confirmed {whole.date}: {whole.words}{' '}
          <Button size="compact-xs" variant="subtle" onClick={() => onTake(group.name, null)}>
            Withdraw
          </Button>
        </p>
      ) : (
        <Button size="compact-xs" variant="default" onClick={() => onNote({ fact: group.name, value: undefined })}>
          Confirm all of “{title}”
        </Button>
      )}
      <table className={styles.facts}>
        <tbody>
          {group.facts.map((fact) => (
            <FactRow
              key={fact.path}
              kind={sheet.kind}
              fact={fact}
              note={noteOf(fact.path)}
              onNote={() => onNote({ fact: fact.path, value: fact.value })}
              onRemove={() => onTake(fact.path, null)}
            />
          ))}
        </tbody>
      </table>
    </details>
  );
}

/** The groups in which a fact is found, each with those facts. */
function matching(sheet: Sheet, groups: readonly FactGroup[], deferredQuery: string): readonly FactGroup[] {
  const isFound = ({ path, value }: FactGroup['facts'][number]) =>
    `${factTitle(sheet.kind, path)} ${path} ${valueText(value, path)}`.toLowerCase().includes(deferredQuery);
  return groups.map((group) => ({ ...group, facts: group.facts.filter(isFound) })).filter(({ facts }) => facts.length > 0);
}

function Facts({ sheet, plan }: { readonly sheet: Sheet; readonly plan: Plan }) {
  const { edit } = useWorkbench();
  const [search, setSearch] = useSearchParams();
  const query = search.get('q') ?? '';
  const deferredQuery = useDeferredValue(query.trim().toLowerCase());
  const [form, setForm] = useState<Asked | null>(null);
  const groups = useMemo(() => groupsOf(sheet), [sheet]);
  const take = (fact: string, note: Omit<BenchNote, 'sheet' | 'fact'> | null) =>
    edit([{ kind: 'bench-note', sheet: sheet.id, fact, note }]);
  const shown = matching(sheet, groups, deferredQuery);
  return (
    <article className={styles.card} aria-label={`Facts of ${sheet.title}`}>
      <h2>{sheet.title}</h2>
      <p className="quiet">
        A bench note overrides the sheet value in this plan. It is shown wherever the fact is used and saved in the plan file.
      </p>
      <SearchField
        label="Search the facts"
        placeholder="pull-up, volts, SDA …"
        value={query}
        maw={360}
        onChange={(text) => setSearch(text ? { q: text } : {}, { replace: true })}
      />
      {shown.length === 0 && <p className="quiet">No fact of this sheet matches “{query}”.</p>}
      {shown.map((group) => (
        <GroupFacts
          // A change of what is looked for folds and unfolds; what the reader does in between stays.
          key={`${group.name} ${String(deferredQuery !== '' || group.facts.length <= MANY)}`}
          sheet={sheet}
          plan={plan}
          group={group}
          isFound={deferredQuery !== ''}
          onNote={setForm}
          onTake={take}
        />
      ))}
      {form && (
        <NoteForm
          key={form.fact}
          fact={form.fact}
          title={factTitle(sheet.kind, form.fact)}
          sheetValue={form.value}
          note={plan.benchNotes[noteKey(sheet.id, form.fact)]}
          onClose={() => setForm(null)}
          onKeep={(note) => take(form.fact, note)}
        />
      )}
    </article>
  );
}

/** Every fact used by the plan, with its bench notes. */
export function FactsView() {
  const plan = useOpenPlan();
  const { sheets } = useWorkbench();
  const { sheet: id } = useParams();
  const list = useMemo(() => sheetsOf(plan, bareSheets(sheets)), [plan, sheets]);
  const chosen = list.find((sheet) => sheet.id === id) ?? list[0];
  const notes = (sheet: Sheet) => Object.values(plan.benchNotes).filter((note) => note.sheet === sheet.id).length;
  return (
    <div className={styles.columns}>
      <nav className={styles.index} aria-label="Sheets of this plan">
        <h2 className={styles.head}>Facts of this plan</h2>
        <ul>
          {list.map((sheet) => (
            <li key={sheet.id}>
              <NavLink to={`/plans/${plan.id}/facts/${sheet.id}`} className={clsx(sheet === chosen ? styles.linkOn : styles.link)}>
                {sheet.title}
                {notes(sheet) > 0 && <span className={styles.noteCount}> {counted(notes(sheet), 'note')}</span>}
              </NavLink>
            </li>
          ))}
        </ul>
      </nav>
      <div className={styles.box}>{chosen && <Facts key={chosen.id} sheet={chosen} plan={plan} />}</div>
    </div>
  );
}
