import clsx from 'clsx';
import { entryOrThrow } from '@roof-chart/core/collections/orThrow';
import { Chip, UnstyledButton } from '@mantine/core';
import { useDeferredValue, useMemo, useState } from 'react';
import { Link } from 'react-router';
import { boardFace } from '@roof-chart/core/faces/boardFace';
import { BOARD_TRAITS } from '@roof-chart/core/identify/boardTraits';
import { searchBoards } from '@roof-chart/core/identify/identifyBoard';
import { counted } from '@roof-chart/core/quantity/format';
import type { BoardSheet } from '@roof-chart/core/sheets/boardSheet';
import { boardTraitsText } from '@roof-chart/core/text/boardTraitsText';
import { FacePicture } from '../../ui/face/Face';
import { SearchField } from '../../ui/SearchField';
import styles from './Plans.module.css';

interface BoardCardProps {
  readonly board: BoardSheet;
  readonly isChosen: boolean;
  readonly onChoose: (board: string) => void;
}

function BoardCard({ board, isChosen, onChoose }: BoardCardProps) {
  return (
    <li>
      <UnstyledButton
        className={clsx(styles.card, isChosen && styles.cardChosen)}
        aria-pressed={isChosen}
        onClick={() => onChoose(board.id)}
      >
        <span className={styles.cardFace} aria-hidden>
          <FacePicture face={boardFace(board)} labels={false} maxScale={3.6} />
        </span>
        <strong>{board.title}</strong>
        <span className={styles.traits}>
          {boardTraitsText(board).map((trait) => (
            <span key={trait}>{trait}</span>
          ))}
        </span>
      </UnstyledButton>
    </li>
  );
}

/** Every board by its likeness: one is found by sight, by what people know of it, or by what is printed on it. */
export function BoardGallery({
  boards,
  board,
  onChoose,
}: {
  readonly boards: readonly BoardSheet[];
  readonly board: string | null;
  readonly onChoose: (board: string) => void;
}) {
  const [text, setText] = useState('');
  const [traits, setTraits] = useState<string[]>([]);
  const deferredQuery = useDeferredValue(text.trim());
  const shown = useMemo(
    () =>
      (deferredQuery === '' ? boards : searchBoards(boards, deferredQuery)).filter((one) =>
        traits.every((trait) => entryOrThrow(BOARD_TRAITS, trait)(one)),
      ),
    [boards, deferredQuery, traits],
  );
  return (
    <section aria-label="Boards" className={styles.gallery}>
      <h2 className={styles.heading}>Which board is on your bench?</h2>
      <div className={styles.galleryTools}>
        <SearchField label="Search boards" placeholder="Chip, pins, labels: D13 AREF A0" value={text} maxLength={400} onChange={setText} />
        <Chip.Group multiple value={traits} onChange={setTraits}>
          {Object.keys(BOARD_TRAITS).map((trait) => (
            <Chip key={trait} value={trait} size="xs" variant="outline">
              {trait}
            </Chip>
          ))}
        </Chip.Group>
      </div>
      <p className="quiet" aria-live="polite">
        {shown.length === 0 ? (
          <>
            No board matches. Remove a filter, or <Link to="/sheets/new-board">make it from its pin table</Link>.
          </>
        ) : (
          counted(shown.length, 'board')
        )}
      </p>
      <ul className={styles.cards}>
        {shown.map((one) => (
          <BoardCard key={one.id} board={one} isChosen={one.id === board} onChoose={onChoose} />
        ))}
      </ul>
    </section>
  );
}
