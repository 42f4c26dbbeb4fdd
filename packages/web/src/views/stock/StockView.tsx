import { Button, TextInput, UnstyledButton } from '@mantine/core';
import { IconSearch } from '@tabler/icons-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { sayFinding, sayRemedy } from '@roof-chart/core/checks/say';
import { newPlacement } from '@roof-chart/core/plan/newPlacement';
import type { Plan } from '@roof-chart/core/plan/plan';
import type { Addition } from '@roof-chart/core/review/addition';
import { FAMILIES, type Family, type PartSheet } from '@roof-chart/core/sheets/partSheet';
import { searchParts } from '@roof-chart/core/sheets/searchParts';
import { useWorkbench } from '../../app/workbench';
import { useAppSelector } from '../../store/store';
import { PartList } from './PartList';
import styles from './Stock.module.css';
import { useAdditions } from './useAdditions';

const FAMILY_WORDS: { readonly [F in Family]: string } = {
  display: 'Displays',
  sensor: 'Sensors',
  input: 'Inputs',
  light: 'Lights',
  output: 'Outputs',
  storage: 'Storage',
  clock: 'Clocks',
  helper: 'Helpers',
};

const BUS_WORDS = { i2c: 'I2C', spi: 'SPI', uart: 'serial', private: 'own wires', none: 'plain wires' } as const;

/** "fits, takes 2 pins" or the first thing that would go wrong: shown before the part is added. */
function Consequence({ addition }: { readonly addition: Addition | undefined }) {
  const { sheets } = useWorkbench();
  if (!addition) return <span className="quiet">…</span>;
  const pins = addition.pins === 0 ? 'no further pin' : `takes ${addition.pins} ${addition.pins === 1 ? 'pin' : 'pins'}`;
  const first = addition.added[0];
  if (!first) return <span className={styles.fits}>pins and addresses fit, {pins}</span>;
  const remedy = first.remedies[0];
  const more = addition.added.length > 1 ? ` and ${addition.added.length - 1} more` : '';
  return (
    <span className={styles.meets}>
      {sayFinding(addition.plan, sheets, first).title}
      {more}; {pins}
      {remedy && <span className={styles.then}> Then: {sayRemedy(addition.plan, sheets, first.code, remedy)}</span>}
    </span>
  );
}

function Found({ plan, part, addition }: { readonly plan: Plan; readonly part: PartSheet; readonly addition: Addition | undefined }) {
  const { edit } = useWorkbench();
  const supply = part.supply ? `${part.supply.volts.min} V to ${part.supply.volts.max} V` : 'no supply of its own';
  const addBare = () => edit([{ kind: 'add-placement', placement: newPlacement(plan, part) }], `add ${part.title}`);
  return (
    <li className={styles.found}>
      <div className={styles.foundWords}>
        <strong>{part.title}</strong>
        <span className="quiet">{part.summary}</span>
        <span className={styles.labels}>{part.terminals.list.map((t) => t.label).join(' ')}</span>
        <span className={styles.facts}>
          <span>{BUS_WORDS[part.bus.kind]}</span>
          <span className="num">{supply}</span>
          <Consequence addition={addition} />
        </span>
      </div>
      <div className={styles.buttons}>
        <Button
          variant="filled"
          disabled={!addition}
          aria-label={`Add ${part.title} and wire it`}
          onClick={() => addition && edit(addition.edits, `add ${part.title} with its wires`)}
        >
          Add and wire
        </Button>
        <Button variant="subtle" aria-label={`Add ${part.title} without wires`} onClick={addBare}>
          Add only
        </Button>
      </div>
    </li>
  );
}

function FamilyFilter({
  family,
  parts,
  onChoose,
}: {
  readonly family: Family | undefined;
  readonly parts: readonly PartSheet[];
  readonly onChoose: (family: Family | undefined) => void;
}) {
  const present = FAMILIES.filter((f) => parts.some((part) => part.family === f));
  return (
    <div className={styles.families} role="group" aria-label="Families">
      <UnstyledButton className={family ? styles.family : styles.familyOn} aria-pressed={!family} onClick={() => onChoose(undefined)}>
        All
      </UnstyledButton>
      {present.map((f) => (
        <UnstyledButton
          key={f}
          className={family === f ? styles.familyOn : styles.family}
          aria-pressed={family === f}
          onClick={() => onChoose(f)}
        >
          {FAMILY_WORDS[f]}
        </UnstyledButton>
      ))}
    </div>
  );
}

/** What is in the plan, and what could be added. */
export function StockView() {
  const plan = useAppSelector((state) => state.document.plan)!;
  const { sheets } = useWorkbench();
  const parts = useMemo(() => [...sheets.parts.values()].map((p) => p.sheet), [sheets]);
  const [query, setQuery] = useState('');
  const [family, setFamily] = useState<Family | undefined>();
  const found = useMemo(() => searchParts(parts, query, family), [parts, query, family]);
  const additions = useAdditions(
    plan,
    found.map((part) => part.id),
  );
  const search = useRef<HTMLInputElement>(null);
  useEffect(() => search.current?.focus({ preventScroll: true }), []);
  return (
    <div className={styles.view}>
      <PartList plan={plan} />
      <section className={styles.add} aria-label="Add parts">
        <h2 className={styles.heading}>Add parts</h2>
        <TextInput
          ref={search}
          size="sm"
          aria-label="Search parts"
          placeholder="Name, chip, printed label, address…"
          leftSection={<IconSearch size={15} />}
          value={query}
          onChange={(event) => setQuery(event.currentTarget.value)}
        />
        <FamilyFilter family={family} parts={parts} onChoose={setFamily} />
        {found.length === 0 && (
          <p className="quiet">
            No part matches “{query}”{family ? ` among ${FAMILY_WORDS[family].toLowerCase()}` : ''}. Try the chip’s number, or one printed
            label.
          </p>
        )}
        <ul className={styles.list}>
          {found.map((part) => (
            <Found key={part.id} plan={plan} part={part} addition={additions.get(part.id)} />
          ))}
        </ul>
      </section>
    </div>
  );
}
