import clsx from 'clsx';
import { firstOrThrow } from '@roof-chart/core/collections/orThrow';
import { Button, NumberInput, UnstyledButton } from '@mantine/core';
import { useDeferredValue, useEffect, useMemo, useRef, useState } from 'react';
import { formatAddress } from '@roof-chart/core/quantity/format';
import type { Plan } from '@roof-chart/core/plan/plan';
import { FAMILIES, type Family, type PartSheet } from '@roof-chart/core/sheets/partSheet';
import { countedQuery, MOST_AT_ONCE } from '@roof-chart/core/sheets/countedQuery';
import { readQuery, searchParts } from '@roof-chart/core/sheets/searchParts';
import { useWorkbench } from '../../state/workbench';
import { useOpenPlan } from '../../state/store';
import { SearchField } from '../../ui/SearchField';
import { Found } from './Found';
import { Identify } from './Identify';
import { PartList } from './PartList';
import styles from './Stock.module.css';
import { FAMILY_TEXT, variantGroups } from '@roof-chart/core/text/partText';
import { useAdditions } from './useAdditions';

/** Number of groups shown initially. */
const FIRST = 20;

function FamilyFilter({
  family,
  parts,
  onChoose,
}: {
  readonly family: Family | undefined;
  readonly parts: readonly PartSheet[];
  readonly onChoose: (family: Family | undefined) => void;
}) {
  const count = (f: Family) => parts.filter((part) => part.family === f).length;
  return (
    <div className={styles.families} role="group" aria-label="Families">
      <UnstyledButton className={family ? styles.family : styles.familyOn} aria-pressed={!family} onClick={() => onChoose(undefined)}>
        All <span className="num">{parts.length}</span>
      </UnstyledButton>
      {FAMILIES.filter((f) => count(f) > 0 || f === family).map((f) => (
        <UnstyledButton
          key={f}
          className={family === f ? styles.familyOn : styles.family}
          aria-pressed={family === f}
          onClick={() => onChoose(f)}
        >
          {FAMILY_TEXT[f]} <span className="num">{count(f)}</span>
        </UnstyledButton>
      ))}
    </div>
  );
}

/** What the search has understood, where that is more than words. */
function Understood({ query }: { readonly query: string }) {
  const { halved, addresses } = readQuery(query);
  if (halved.length === 0) return null;
  return (
    <p className={styles.understood}>
      {halved.map(formatAddress).join(', ')} is the 8-bit form of the address; searching for {addresses.map(formatAddress).join(', ')}.
    </p>
  );
}

function Results({
  plan,
  found,
  query,
  family,
  quantity,
  late,
}: {
  readonly plan: Plan;
  readonly found: readonly PartSheet[];
  readonly query: string;
  readonly family: Family | undefined;
  readonly quantity: number;
  /** Whether these are still the results of what was typed before. */
  readonly late: boolean;
}) {
  const groups = useMemo(() => variantGroups(found), [found]);
  const [shownFor, setShownFor] = useState({ found, count: FIRST });
  const count = shownFor.found === found ? shownFor.count : FIRST;
  const shown = groups.slice(0, count);
  const additions = useAdditions(
    plan,
    shown.map((group) => firstOrThrow(group).id),
  );
  if (found.length === 0)
    return (
      <p className="quiet">
        No part matches “{query}”{family ? ` among ${FAMILY_TEXT[family].toLowerCase()}` : ''}. Try the chip number, a printed label or an
        address such as 0x68, or identify the part by its labels.
      </p>
    );
  return (
    <>
      <ul className={styles.list} aria-label="Parts found" aria-busy={late}>
        {shown.map((group) => (
          <Found key={firstOrThrow(group).id} plan={plan} parts={group} addition={additions.get(firstOrThrow(group).id)} count={quantity} />
        ))}
      </ul>
      {groups.length > count && (
        <Button variant="default" className={clsx(styles.moreButton)} onClick={() => setShownFor({ found, count: count + 40 })}>
          Show {Math.min(40, groups.length - count)} more of {groups.length - count}
        </Button>
      )}
    </>
  );
}

/** How many of a part are added at once. */
function Quantity({ value, onChange }: { readonly value: number; readonly onChange: (count: number) => void }) {
  return (
    <NumberInput
      size="sm"
      className={clsx(styles.quantity)}
      aria-label="Quantity"
      prefix="× "
      title="How many to add at once"
      min={1}
      max={MOST_AT_ONCE}
      clampBehavior="strict"
      allowDecimal={false}
      value={value}
      onChange={(count) => onChange(Number(count) || 1)}
    />
  );
}

/** What is in the plan, and what could be added. */
export function StockView() {
  const plan = useOpenPlan();
  const { sheets } = useWorkbench();
  const parts = useMemo(() => [...sheets.parts.values()].map((p) => p.sheet), [sheets]);
  const [query, setQuery] = useState('');
  const [family, setFamily] = useState<Family | undefined>();
  const [identifying, setIdentifying] = useState(false);
  const [quantity, setQuantity] = useState(1);
  const deferredQuery = useDeferredValue(query);
  const { count, rest } = countedQuery(deferredQuery);
  const matching = useMemo(() => searchParts(parts, rest), [parts, rest]);
  const found = useMemo(() => (family ? matching.filter((part) => part.family === family) : matching), [matching, family]);
  const search = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (!identifying) search.current?.focus({ preventScroll: true });
  }, [identifying]);
  return (
    <div className={styles.view}>
      <PartList plan={plan} />
      <section className={styles.add} aria-label="Add parts">
        {identifying ? (
          <Identify plan={plan} parts={parts} onClose={() => setIdentifying(false)} />
        ) : (
          <>
            <h2 className={styles.heading}>Add parts</h2>
            <div className={styles.searchLine}>
              <SearchField
                ref={search}
                size="sm"
                label="Search parts"
                placeholder="Name, chip, label, address, needs 5 V…"
                value={query}
                onChange={setQuery}
              />
              <Quantity value={count > 1 ? count : quantity} onChange={setQuantity} />
              <Button variant="default" size="sm" onClick={() => setIdentifying(true)}>
                Identify by labels
              </Button>
            </div>
            <Understood query={rest} />
            <FamilyFilter family={family} parts={matching} onChoose={setFamily} />
            <Results
              plan={plan}
              found={found}
              query={rest}
              family={family}
              quantity={count > 1 ? count : quantity}
              late={query !== deferredQuery}
            />
          </>
        )}
      </section>
    </div>
  );
}
