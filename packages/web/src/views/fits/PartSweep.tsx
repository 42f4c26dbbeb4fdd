import { SegmentedControl, TextInput } from '@mantine/core';
import { IconSearch } from '@tabler/icons-react';
import { memo, useCallback, useDeferredValue, useEffect, useMemo, useRef, useState } from 'react';
import type { Remote } from 'comlink';
import type { Edit } from '@roof-chart/core/plan/edit';
import type { Plan } from '@roof-chart/core/plan/plan';
import type { Addition, AdditionVerdict } from '@roof-chart/core/review/addition';
import { FAMILIES, type PartSheet } from '@roof-chart/core/sheets/partSheet';
import { searchParts } from '@roof-chart/core/sheets/searchParts';
import { useWorkbench } from '../../app/workbench';
import type { Reviewer } from '../../review/review.worker';
import { FAMILY_WORDS } from '../stock/stockWords';
import styles from './Fits.module.css';
import { partWords } from './fitsWords';
import type { PartFit } from './partFit';
import { Streaming } from './Streaming';
import { useStream } from './useStream';

const askParts = (reviewer: Remote<Reviewer>, held: number, ids: readonly string[]): Promise<readonly PartFit[]> =>
  reviewer.sweep(held, ids);

const WORDS: { readonly [V in AdditionVerdict]: string } = { fits: 'Fits', moves: 'Moves wires', risk: 'Risk', no: 'No' };
const TONE: { readonly [V in AdditionVerdict]: string } = {
  fits: styles.good!,
  moves: styles.moves!,
  risk: styles.risky!,
  no: styles.bad!,
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
  readonly onAdd: (part: PartSheet) => void;
}) {
  return (
    <tr className={styles.row}>
      <th scope="row" className={styles.partName} title={part.title}>
        {part.title}
      </th>
      <td className={verdict ? TONE[verdict] : 'quiet'}>{verdict ? WORDS[verdict] : '…'}</td>
      <td className={styles.consequence} title={words}>
        {words}
      </td>
      <td className={styles.action}>
        <button
          type="button"
          className={styles.add}
          disabled={!verdict}
          aria-label={`Add ${part.title} and wire it`}
          onClick={() => onAdd(part)}
        >
          Add
        </button>
      </td>
    </tr>
  );
});

type Shown = AdditionVerdict | 'all';

/** Every part of the sheets: can one more be added now, what would move, what would be found. */
export function PartSweep({ plan }: { readonly plan: Plan }) {
  const { sheets, feed, edit } = useWorkbench();
  const parts = useMemo(
    () =>
      [...sheets.parts.values()]
        .map((p) => p.sheet)
        .toSorted((a, b) => FAMILIES.indexOf(a.family) - FAMILIES.indexOf(b.family) || (a.title < b.title ? -1 : 1)),
    [sheets],
  );
  const ids = useMemo(() => parts.map((part) => part.id), [parts]);
  const fits = useStream<PartFit>(plan, ids, askParts, 'quick');
  const [query, setQuery] = useState('');
  const [shown, setShown] = useState<Shown>('all');
  const asked = useDeferredValue(query);
  const matching = useMemo(() => (asked.trim() ? new Set(searchParts(parts, asked).map((part) => part.id)) : null), [parts, asked]);
  const byPart = useMemo(() => new Map(fits.map((fit) => [fit.part, fit])), [fits]);
  const words = useMemo(() => new Map(fits.map((fit) => [fit.part, partWords(plan, fit, sheets)])), [fits, plan, sheets]);
  // The lines keep what they call, whatever the plan has become.
  const latest = useRef<{ readonly plan: Plan; readonly edit: (edits: readonly Edit[], words: string) => void }>({ plan, edit });
  useEffect(() => {
    latest.current = { plan, edit };
  }, [plan, edit]);
  const count = (verdict: AdditionVerdict) => fits.filter((fit) => fit.verdict === verdict).length;
  const list = parts.filter((p) => (!matching || matching.has(p.id)) && (shown === 'all' || byPart.get(p.id)?.verdict === shown));
  const onAdd = useCallback(
    (part: PartSheet) =>
      void feed
        .ask<readonly Addition[]>((reviewer) => reviewer.additions(latest.current.plan, [part.id]))
        .then(([addition]) => addition && latest.current.edit(addition.edits, `add ${part.title} with its wires`)),
    [feed],
  );
  return (
    <>
      <Streaming
        done={fits.length}
        all={ids.length}
        words={`${count('fits')} of ${ids.length} parts fit beside what is there, ${count('moves')} if other wires give way.`}
      />
      <div className={styles.tools}>
        <TextInput
          size="xs"
          className={styles.search!}
          aria-label="Search parts"
          placeholder="chip, function, label, address"
          leftSection={<IconSearch size={14} />}
          value={query}
          onChange={(event) => setQuery(event.currentTarget.value)}
        />
        <SegmentedControl
          size="xs"
          aria-label="Parts shown"
          value={shown}
          onChange={(value) => setShown(value as Shown)}
          data={[
            { value: 'all', label: 'All' },
            { value: 'fits', label: `Fits ${count('fits')}` },
            { value: 'moves', label: `Moves wires ${count('moves')}` },
            { value: 'risk', label: `Risk ${count('risk')}` },
            { value: 'no', label: `No ${count('no')}` },
          ]}
        />
      </div>
      <div className={styles.scroller} tabIndex={0} role="region" aria-label="Parts">
        {list.length === 0 ? (
          <p className="quiet">{matching ? `No part matches “${asked}” here.` : 'No part comes out like this.'}</p>
        ) : (
          <table className={styles.table}>
            <thead>
              <tr>
                <th scope="col">Part</th>
                <th scope="col">One more</th>
                <th scope="col">What it takes</th>
                <th scope="col">
                  <span className={styles.hidden}>Add</span>
                </th>
              </tr>
            </thead>
            {FAMILIES.filter((family) => list.some((part) => part.family === family)).map((family) => (
              <tbody key={family}>
                <tr>
                  <th colSpan={4} scope="rowgroup" className={styles.family}>
                    {FAMILY_WORDS[family]}
                  </th>
                </tr>
                {list
                  .filter((part) => part.family === family)
                  .map((part) => (
                    <Line key={part.id} part={part} verdict={byPart.get(part.id)?.verdict} words={words.get(part.id)} onAdd={onAdd} />
                  ))}
              </tbody>
            ))}
          </table>
        )}
      </div>
    </>
  );
}
