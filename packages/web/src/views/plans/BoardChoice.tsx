import clsx from 'clsx';
import { getOrThrow } from '@roof-chart/core/collections/orThrow';
import { Button, Select, Textarea } from '@mantine/core';
import { useDeferredValue, useMemo, useState } from 'react';
import { Link } from 'react-router';
import { type BoardMatch, identifyBoard, onlyOn, searchBoards } from '@roof-chart/core/identify/identifyBoard';
import { counted } from '@roof-chart/core/quantity/format';
import type { BoardSheet } from '@roof-chart/core/sheets/boardSheet';
import styles from './Plans.module.css';

/** So many answers are shown; the board is among the first, or its sheet is missing. */
const SHOWN = 4;
/** So many differing labels are named. */
const MOST_LABELS = 4;

/** Labels to look for on the bench that only this board has, compared with the answer before or after it. */
function Difference({ match, other }: { readonly match: BoardMatch; readonly other: BoardMatch | undefined }) {
  if (!other || other.score < match.score - 0.15) return null;
  const labels = onlyOn(match.board, other.board).slice(0, MOST_LABELS);
  return (
    <span className="quiet">
      {labels.length > 0 ? `Unlike ${other.board.title} it has ` : `Printed like ${other.board.title}: read the chip, ${match.board.chip}.`}
      {labels.length > 0 && <span className="mono">{labels.join(' ')}</span>}
    </span>
  );
}

function Matches({ matches, onChoose }: { readonly matches: readonly BoardMatch[]; readonly onChoose: (board: string) => void }) {
  return (
    <ol className={styles.matches}>
      {matches.slice(0, SHOWN).map((match, at) => (
        <li key={match.board.id}>
          <div>
            <strong>{match.board.title}</strong>
            <span className="quiet">
              {counted(match.matched, 'label')} found
              {match.strange.length > 0 ? `; not on it: ${match.strange.slice(0, MOST_LABELS).join(' ')}` : ''}
            </span>
            <Difference match={match} other={matches[at === 0 ? 1 : 0]} />
          </div>
          <Button
            size="compact-sm"
            variant={at === 0 ? 'filled' : 'default'}
            aria-label={`Use ${match.board.title}`}
            onClick={() => onChoose(match.board.id)}
          >
            Use
          </Button>
        </li>
      ))}
    </ol>
  );
}

/** Finds a board by what can be read on it. */
function ByLabels({ boards, onChoose }: { readonly boards: readonly BoardSheet[]; readonly onChoose: (board: string) => void }) {
  const [text, setText] = useState('');
  const deferredQuery = useDeferredValue(text);
  const matches = useMemo(() => identifyBoard(boards, deferredQuery), [boards, deferredQuery]);
  return (
    <>
      <Textarea
        data-autofocus
        label="Labels printed at the edges"
        description="In any order, with blanks between them."
        placeholder="D13 3V3 AREF A0 A1"
        autosize
        minRows={2}
        maxLength={2000}
        value={text}
        onChange={(event) => setText(event.currentTarget.value)}
      />
      <div aria-live="polite">
        {deferredQuery.trim() !== '' && matches.length === 0 ? (
          <p className={styles.boardNote}>
            No board has these labels. <Link to="/sheets/new-board">Make it from its pin table</Link>.
          </p>
        ) : (
          <Matches matches={matches} onChoose={onChoose} />
        )}
      </div>
    </>
  );
}

/** The choice of a board: by title and traits, or by its labels. */
export function BoardChoice({
  boards,
  board,
  onChoose,
}: {
  readonly boards: readonly BoardSheet[];
  readonly board: string | null;
  readonly onChoose: (board: string | null) => void;
}) {
  const [isByLabels, setByLabels] = useState(false);
  const data = useMemo(() => boards.map(({ id, title }) => ({ value: id, label: title })), [boards]);
  return (
    <>
      <Select
        label="Board"
        placeholder="Choose your board"
        description="Chip, form, “30 pins”, “5 V”, “USB-C”, radio, or labels."
        data={data}
        value={board}
        onChange={onChoose}
        searchable
        filter={({ options, search }) => {
          // The text of the chosen board is no search.
          if (data.some(({ label }) => label === search)) return options;
          const found = new Map(searchBoards(boards, search).map(({ id }, at) => [id, at]));
          return options
            .flatMap((option) => ('value' in option && found.has(option.value) ? [option] : []))
            .toSorted((a, b) => getOrThrow(found, a.value) - getOrThrow(found, b.value));
        }}
        nothingFoundMessage="No board matches. Identify it by its labels, or make it from its pin table."
      />
      <Button
        size="compact-sm"
        variant="subtle"
        className={clsx(styles.byLabels)}
        aria-expanded={isByLabels}
        onClick={() => setByLabels(!isByLabels)}
      >
        Identify by labels
      </Button>
      {isByLabels && (
        <ByLabels
          boards={boards}
          onChoose={(id) => {
            onChoose(id);
            setByLabels(false);
          }}
        />
      )}
    </>
  );
}
