import { Chip, TextInput, UnstyledButton } from '@mantine/core';
import { IconSearch } from '@tabler/icons-react';
import { useDeferredValue, useMemo, useState } from 'react';
import { Link } from 'react-router';
import { boardFace } from '@roof-chart/core/faces/boardFace';
import { searchBoards } from '@roof-chart/core/identify/identifyBoard';
import { counted } from '@roof-chart/core/quantity/format';
import { typical } from '@roof-chart/core/quantity/range';
import { type BoardSheet, USB_CONNECTORS } from '@roof-chart/core/sheets/boardSheet';
import { boardTraits } from '@roof-chart/core/text/boardTraits';
import { FacePicture } from '../../ui/face/Face';
import styles from './Plans.module.css';

/** What people know of a board without reading its name, by the facts of its sheet. */
const TRAITS: { readonly [trait: string]: (board: BoardSheet) => boolean } = {
  '3.3 V': ({ electrical }) => Math.round(typical(electrical.vdd)) === 3,
  '5 V': ({ electrical }) => Math.round(typical(electrical.vdd)) === 5,
  ...Object.fromEntries(USB_CONNECTORS.map((usb) => [usb, ({ traits }: BoardSheet) => traits?.usb === usb])),
  stick: ({ form }) => /\bstick\b/.test(form),
  stamp: ({ form }) => /\bstamp\b/.test(form),
  shield: ({ form }) => /\bshield\b/.test(form),
  Linux: ({ system }) => system === 'linux',
  radio: ({ radio }) => radio !== undefined,
  'bare chip': ({ shape }) => shape?.body === 'dip',
};

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
  const asked = useDeferredValue(text.trim());
  const shown = useMemo(
    () => (asked === '' ? boards : searchBoards(boards, asked)).filter((one) => traits.every((trait) => TRAITS[trait]!(one))),
    [boards, asked, traits],
  );
  return (
    <section aria-label="Boards" className={styles.gallery}>
      <h2 className={styles.heading}>Which board is on your bench?</h2>
      <div className={styles.galleryTools}>
        <TextInput
          aria-label="Search boards"
          placeholder="Chip, pins, labels: D13 AREF A0"
          leftSection={<IconSearch size={14} />}
          value={text}
          maxLength={400}
          onChange={(event) => setText(event.currentTarget.value)}
        />
        <Chip.Group multiple value={traits} onChange={setTraits}>
          {Object.keys(TRAITS).map((trait) => (
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
          <li key={one.id}>
            <UnstyledButton
              className={one.id === board ? `${styles.card} ${styles.cardChosen}` : styles.card}
              aria-pressed={one.id === board}
              onClick={() => onChoose(one.id)}
            >
              <span className={styles.cardFace} aria-hidden>
                <FacePicture face={boardFace(one)} labels={false} maxScale={3.6} />
              </span>
              <strong>{one.title}</strong>
              <span className={styles.traits}>
                {boardTraits(one).map((trait) => (
                  <span key={trait}>{trait}</span>
                ))}
              </span>
            </UnstyledButton>
          </li>
        ))}
      </ul>
    </section>
  );
}
