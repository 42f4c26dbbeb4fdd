import clsx from 'clsx';
import { SegmentedControl } from '@mantine/core';
import { type CSSProperties, memo, useCallback, useDeferredValue, useEffect, useMemo, useRef, useState } from 'react';
import type { Remote } from 'comlink';
import type { Edit } from '@roof-chart/core/plan/edit';
import type { Plan } from '@roof-chart/core/plan/plan';
import type { AdditionVerdict } from '@roof-chart/core/review/addition';
import type { CompleteAddition } from '@roof-chart/core/review/additionNeeds';
import { FAMILIES, type PartSheet } from '@roof-chart/core/sheets/partSheet';
import { searchParts } from '@roof-chart/core/sheets/searchParts';
import { useWorkbench } from '../../state/workbench';
import { ListFace } from '../../ui/face/ListFace';
import { SearchField } from '../../ui/SearchField';
import type { Reviewer } from '../../workers/review.worker';
import { FAMILY_TEXT } from '@roof-chart/core/text/partText';
import fits from './Fits.module.css';
import styles from './PartSweep.module.css';
import type { PartFit } from '@roof-chart/core/text/views/partFit';
import { Streaming } from './Streaming';
import { useStream } from './useStream';

const askParts = (reviewer: Remote<Reviewer>, held: number, ids: readonly string[]): Promise<readonly PartFit[]> =>
  reviewer.sweep(held, ids);
const askNeeds = (reviewer: Remote<Reviewer>, held: number, ids: readonly string[]): Promise<readonly PartFit[]> =>
  reviewer.sweepWithNeeds(held, ids);
const partOf = (fit: PartFit): string => fit.part;
const NO_IDS: readonly string[] = [];

const WORDS: { readonly [V in AdditionVerdict]: string } = {
  fits: 'Fits',
  with: 'Fits with parts',
  moves: 'Moves wires',
  risk: 'Warning',
  no: 'Does not fit',
};
const TONE: { readonly [V in AdditionVerdict]: string } = {
  fits: clsx(fits.good),
  with: clsx(fits.good),
  moves: clsx(fits.moves),
  risk: clsx(fits.risky),
  no: clsx(fits.bad),
};

/** One of hundreds that are drawn anew while answers come in: nothing in it that is not needed. */
const Line = memo(function Line({
  part,
  verdict,
  words,
  onAdd,
}: {
  readonly part: PartSheet;
  readonly verdict: AdditionVerdict | undefined;
  readonly words: string | undefined;
  readonly onAdd: (part: PartSheet) => Promise<void>;
}) {
  return (
    <div role="row" className={styles.row}>
      <div role="rowheader" className={styles.part} title={part.title}>
        <ListFace sheet={part} />
        <span className={styles.name}>{part.title}</span>
      </div>
      <div role="cell" className={verdict ? TONE[verdict] : 'quiet'}>
        {verdict ? WORDS[verdict] : '…'}
      </div>
      <div role="cell" className={styles.words} title={words}>
        {words}
      </div>
      <div role="cell" className={styles.action}>
        <button type="button" className={styles.add} aria-label={`Add ${part.title} and connect it`} onClick={() => void onAdd(part)}>
          Add
        </button>
      </div>
    </div>
  );
});

const VERDICTS: readonly AdditionVerdict[] = ['fits', 'with', 'moves', 'risk', 'no'];
type Shown = AdditionVerdict | 'all';

/** What adding each part would do: first as it is, then, of those that do not fit like that, with what they need beside them. */
function useVerdicts(plan: Plan, ids: readonly string[]) {
  const { found, known: plain } = useStream(plan, ids, askParts, partOf, 'quick');
  const doubtful = useMemo(
    () => (found.length < ids.length ? NO_IDS : found.filter(({ verdict }) => verdict === 'risk' || verdict === 'no').map(partOf)),
    [found, ids],
  );
  const { known: complete } = useStream(plan, doubtful, askNeeds, partOf, 'quick');
  const known = useMemo(() => new Map([...plain, ...[...complete].filter(([id]) => doubtful.includes(id))]), [plain, complete, doubtful]);
  return { done: found.length, known };
}

/** Adds a part with its wires. The function stays the same, whatever the plan has become: lines are not drawn anew because of it. */
function useAdding(plan: Plan): (part: PartSheet) => Promise<void> {
  const { workers, edit } = useWorkbench();
  const latest = useRef<{ readonly plan: Plan; readonly edit: (edits: readonly Edit[], words: string) => void }>({ plan, edit });
  useEffect(() => {
    latest.current = { plan, edit };
  }, [plan, edit]);
  return useCallback(
    async (part: PartSheet) => {
      for (;;) {
        const currentPlan = latest.current.plan;
        const [addition] = await workers.ask<readonly CompleteAddition[]>((reviewer) => reviewer.additions(currentPlan, [part.id]));
        // If the plan has changed meanwhile, by a second press for example, the addition is computed again.
        if (currentPlan !== latest.current.plan) continue;
        if (addition)
          latest.current.edit(
            addition.needs?.left.length === 0 ? addition.needs.edits : addition.edits,
            `add ${part.title} with its wires`,
          );
        return;
      }
    },
    [workers],
  );
}

interface ToolsProps {
  readonly query: string;
  readonly onQuery: (query: string) => void;
  readonly shown: Shown;
  readonly onShown: (shown: Shown) => void;
  readonly count: (verdict: AdditionVerdict) => number;
}

function Tools({ query, onQuery, shown, onShown, count }: ToolsProps) {
  return (
    <div className={fits.tools}>
      <SearchField
        size="xs"
        className={clsx(fits.search)}
        label="Search parts"
        placeholder="chip, function, label, address"
        value={query}
        onChange={onQuery}
      />
      <SegmentedControl
        size="xs"
        aria-label="Parts shown"
        value={shown}
        onChange={(value) => onShown(value as Shown)}
        data={[{ value: 'all', label: 'All' }, ...VERDICTS.map((value) => ({ value, label: `${WORDS[value]} ${count(value)}` }))]}
      />
    </div>
  );
}

interface TableProps {
  readonly parts: readonly PartSheet[];
  readonly known: ReadonlyMap<string, PartFit>;
  /** Whether what is shown is partly of the plan as it was before. */
  readonly isStale: boolean;
  readonly onAdd: (part: PartSheet) => Promise<void>;
}

/** The parts by family, each with its verdict. */
function VerdictTable({ parts, known, isStale, onAdd }: TableProps) {
  const families = FAMILIES.map((family) => ({ family, own: parts.filter((part) => part.family === family) }));
  return (
    <div role="table" aria-label="Effect of adding one more of each part" className={isStale ? styles.anew : undefined}>
      <div role="rowgroup" className={styles.head}>
        <div role="row" className={styles.columns}>
          <div role="columnheader">Part</div>
          <div role="columnheader">Verdict</div>
          <div role="columnheader">Requires</div>
          <div role="columnheader">
            <span className={fits.hidden}>Add</span>
          </div>
        </div>
      </div>
      {families
        .filter(({ own }) => own.length > 0)
        .map(({ family, own }) => (
          <div key={family} role="rowgroup" className={styles.group} style={{ '--rows': own.length } as CSSProperties}>
            <div role="row">
              <div role="rowheader" aria-colspan={4} className={fits.family}>
                {FAMILY_TEXT[family]}
              </div>
            </div>
            {own.map((part) => (
              <Line key={part.id} part={part} verdict={known.get(part.id)?.verdict} words={known.get(part.id)?.words} onAdd={onAdd} />
            ))}
          </div>
        ))}
    </div>
  );
}

const byFamilyAndTitle = (a: PartSheet, b: PartSheet): number =>
  FAMILIES.indexOf(a.family) - FAMILIES.indexOf(b.family) || (a.title < b.title ? -1 : 1);

/** Every part of the sheets: can one more be added now, what would move, what would be found. */
export function PartSweep({ plan }: { readonly plan: Plan }) {
  const { sheets } = useWorkbench();
  const parts = useMemo(() => [...sheets.parts.values()].map(({ sheet }) => sheet).toSorted(byFamilyAndTitle), [sheets]);
  const ids = useMemo(() => parts.map((part) => part.id), [parts]);
  const { done, known } = useVerdicts(plan, ids);
  const [query, setQuery] = useState('');
  const [shown, setShown] = useState<Shown>('all');
  const deferredQuery = useDeferredValue(query);
  const matching = useMemo(
    () => (deferredQuery.trim() ? new Set(searchParts(parts, deferredQuery).map((part) => part.id)) : null),
    [parts, deferredQuery],
  );
  const count = useMemo(() => {
    const all = parts.flatMap((part) => known.get(part.id)?.verdict ?? []);
    return (verdict: AdditionVerdict) => all.filter((one) => one === verdict).length;
  }, [parts, known]);
  const list = parts.filter((p) => (!matching || matching.has(p.id)) && (shown === 'all' || known.get(p.id)?.verdict === shown));
  const onAdd = useAdding(plan);
  return (
    <>
      <Streaming
        done={done}
        all={ids.length}
        words={`${count('fits')} of ${ids.length} parts fit without changes, ${count('with')} with parts that are added beside them, ${count('moves')} if other wires move.`}
      />
      <Tools query={query} onQuery={setQuery} shown={shown} onShown={setShown} count={count} />
      <div className={fits.scroller} tabIndex={0} role="region" aria-label="Parts">
        {list.length === 0 ? (
          <p className="quiet">{matching ? `No part matches “${deferredQuery}” here.` : 'No part with this verdict.'}</p>
        ) : (
          <VerdictTable parts={list} known={known} isStale={done < ids.length} onAdd={onAdd} />
        )}
      </div>
    </>
  );
}
