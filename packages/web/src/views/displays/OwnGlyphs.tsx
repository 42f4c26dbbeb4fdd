import clsx from 'clsx';
import { atOrThrow } from '@roof-chart/core/collections/orThrow';
import { ActionIcon, Button, TextInput } from '@mantine/core';
import { IconX } from '@tabler/icons-react';
import { useState } from 'react';
import { PLAN_LIMITS, type Readout } from '@roof-chart/core/plan/plan';
import { SEGMENTS } from '@roof-chart/core/displays/glyphs';
import styles from './Displays.module.css';

type Glyphs = NonNullable<Readout['glyphs']>;

const COLUMNS = 5;
const ROWS = 8;
const BLANK = Array.from({ length: ROWS }, () => 0);

/** Switches for the dots of a character, or for the segments of a digit. */
function Dots({
  name,
  dots,
  onChange,
}: {
  readonly name: string;
  readonly dots: readonly number[];
  readonly onChange: (dots: readonly number[]) => void;
}) {
  const digit = dots.length === 1;
  const flip = (row: number, bit: number) => onChange(dots.map((value, at) => (at === row ? value ^ (1 << bit) : value)));
  const cells = digit
    ? SEGMENTS.map((segment, bit) => ({ row: 0, bit, label: `segment ${segment}`, text: segment }))
    : Array.from({ length: ROWS * COLUMNS }, (_, n) => {
        const [row, column] = [Math.floor(n / COLUMNS), n % COLUMNS];
        return { row, bit: COLUMNS - 1 - column, label: `row ${row + 1}, column ${column + 1}`, text: '' };
      });
  return (
    <div className={digit ? styles.segmentDots : styles.dots} role="group" aria-label={`Dots of ${name}`}>
      {cells.map(({ row, bit, label, text }) => {
        const lit = (atOrThrow(dots, row) & (1 << bit)) !== 0;
        return (
          <button
            key={`${row} ${bit}`}
            type="button"
            className={lit ? styles.dotLit : styles.dot}
            aria-pressed={lit}
            aria-label={label}
            onClick={() => flip(row, bit)}
          >
            {text}
          </button>
        );
      })}
    </div>
  );
}

interface OwnGlyphsProps {
  readonly glyphs: Glyphs;
  readonly unit: 'digits' | 'characters';
  readonly onChange: (glyphs: Glyphs | undefined) => void;
}

/** Custom characters that the display lacks. */
export function OwnGlyphs({ glyphs, unit, onChange }: OwnGlyphsProps) {
  const [fresh, setFresh] = useState('');
  const all = Object.entries(glyphs);
  const set = (character: string, dots: readonly number[] | undefined) => {
    const { [character]: _before, ...others } = glyphs;
    const next = dots ? { ...glyphs, [character]: dots } : others;
    onChange(Object.keys(next).length > 0 ? next : undefined);
  };
  const [character] = [...fresh];
  return (
    <details className={styles.own} open={all.length > 0}>
      <summary>Custom characters ({all.length})</summary>
      <div className={styles.glyphs}>
        {all.map(([one, dots]) => (
          <div key={one} className={styles.glyph}>
            <span className="mono">{one}</span>
            <ActionIcon size={24} aria-label={`Remove character ${one}`} onClick={() => set(one, undefined)}>
              <IconX size={13} />
            </ActionIcon>
            <Dots name={one} dots={dots} onChange={(next) => set(one, next)} />
          </div>
        ))}
      </div>
      {all.length < PLAN_LIMITS.ownGlyphs ? (
        <form
          className={styles.addGlyph}
          onSubmit={(event) => {
            event.preventDefault();
            if (character === undefined || glyphs[character]) return;
            set(character, unit === 'digits' ? [0] : BLANK);
            setFresh('');
          }}
        >
          <TextInput
            size="xs"
            w={90}
            label="Character"
            maxLength={2}
            value={fresh}
            onChange={(event) => setFresh(event.currentTarget.value)}
          />
          <Button size="compact-sm" variant="default" type="submit" disabled={character === undefined || glyphs[character] !== undefined}>
            Draw
          </Button>
        </form>
      ) : (
        <p className={clsx('quiet', styles.fact)}>The display stores {PLAN_LIMITS.ownGlyphs}.</p>
      )}
    </details>
  );
}
