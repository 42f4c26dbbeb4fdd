import clsx from 'clsx';
import { Button, NativeSelect } from '@mantine/core';
import type { HolePlan } from '@roof-chart/core/outputs/holes/holePlan';
import { ROW_DISTANCES_MM, rowDistanceEdit } from '@roof-chart/core/outputs/holes/rowDistance';
import type { Plan } from '@roof-chart/core/plan/plan';
import { counted } from '@roof-chart/core/quantity/format';
import { breadboardText, itemText, proofText, whyOffText } from '@roof-chart/core/text/views/holeText';
import { useWorkbench } from '../../state/workbench';
import { today } from '../../ui/factFields';
import styles from './Holes.module.css';
import type { Placing } from './usePlacing';

interface HolePlacementProps {
  readonly plan: Plan;
  readonly holes: HolePlan;
  readonly placing: Placing;
}

/** Asks how far the two rows of a module are apart: most sheets do not know, a ruler does. */
function RowDistance({
  plan,
  item,
  name,
  placing,
}: Pick<HolePlacementProps, 'plan' | 'placing'> & { readonly item: string; readonly name: string }) {
  const state = (mm: number) => {
    const edit = rowDistanceEdit(plan, item, mm, today(new Date()));
    if (edit) placing.place([edit], 'all', `state the row distance of ${name}`);
  };
  return (
    <NativeSelect
      size="xs"
      className={clsx(styles.distance)}
      aria-label={`Row distance of ${name}`}
      value=""
      data={[
        { value: '', label: 'Measured: row to row…' },
        ...ROW_DISTANCES_MM.map((mm) => ({ value: String(mm), label: `${mm.toFixed(2)} mm` })),
      ]}
      onChange={({ currentTarget }) => state(Number(currentTarget.value))}
    />
  );
}

/** What is on leads, with the reason, and what it would take to fit. */
export function OffList({ plan, holes, placing }: HolePlacementProps) {
  const { sheets } = useWorkbench();
  const { last } = placing;
  const larger = last?.tooMuch.length ? last.larger : undefined;
  if (holes.off.length === 0) return null;
  return (
    <section aria-label="Not on the breadboard">
      <h3>Not on the breadboard, on leads</h3>
      <ul className={styles.off}>
        {holes.off.map((one) => {
          const name = itemText(plan, sheets, one.id);
          return (
            <li key={one.id}>
              <strong>{name}</strong>
              <span className="quiet">{whyOffText(one)}</span>
              {one.why === 'row distance unknown' && <RowDistance plan={plan} item={one.id} name={name} placing={placing} />}
              {one.why === 'needs two boards' && (
                <Button
                  size="compact-xs"
                  variant="default"
                  onClick={() =>
                    placing.place(
                      [{ kind: 'breadboard', breadboard: { ...holes.breadboard, boards: 2, arrangement: 'side by side' } }],
                      'all',
                      'use two breadboards side by side',
                    )
                  }
                >
                  Use two side by side
                </Button>
              )}
              {(one.why === 'chosen' || one.why === 'no room') && (
                <Button
                  size="compact-xs"
                  variant="default"
                  aria-label={`Put ${name} on the breadboard`}
                  onClick={() => placing.place([{ kind: 'place', item: one.id, place: null }], 'all', `put ${name} on the breadboard`)}
                >
                  Put on
                </Button>
              )}
            </li>
          );
        })}
      </ul>
      {larger && (
        <p>
          Everything fits on {breadboardText(larger)}.{' '}
          <Button
            size="compact-xs"
            onClick={() => placing.place([{ kind: 'breadboard', breadboard: larger }], 'all', 'use a larger breadboard')}
          >
            Use that
          </Button>
        </p>
      )}
    </section>
  );
}

/** Whether the placement is the best there is, and what has no place yet. */
export function PlacementState({ plan, holes, placing }: HolePlacementProps) {
  const { sheets } = useWorkbench();
  const { last } = placing;
  return (
    <section aria-label="Placement">
      <h3>Placement</h3>
      <p>{last ? proofText(last) : 'Place the parts again to see whether a better placement exists.'}</p>
      {holes.lacking > 0 && <p>{counted(holes.lacking, 'wire')} found no free hole: move parts apart, or use a larger breadboard.</p>}
      {holes.unplaced.length > 0 && (
        <p>
          Not placed yet: {holes.unplaced.map((id) => itemText(plan, sheets, id)).join(', ')}.{' '}
          <Button size="compact-xs" onClick={() => placing.place([], 'new', 'place new parts')}>
            Place them
          </Button>
        </p>
      )}
    </section>
  );
}
