import { Button, NumberInput, SegmentedControl } from '@mantine/core';
import { IconLock } from '@tabler/icons-react';
import { useState } from 'react';
import { rowsOf } from '@roof-chart/core/outputs/holes/breadboard';
import type { HolePlan, PlacedItem } from '@roof-chart/core/outputs/holes/holePlan';
import type { Edit } from '@roof-chart/core/plan/edit';
import type { Breadboard, HolePlace, Plan } from '@roof-chart/core/plan/plan';
import { itemText, plugText } from '@roof-chart/core/text/views/holeText';
import { useWorkbench } from '../../state/workbench';
import styles from './Holes.module.css';
import type { Placing } from './usePlacing';

/** The edit that puts an item elsewhere and locks it there. */
export function moved(
  item: PlacedItem,
  change: { readonly row?: number; readonly side?: HolePlace['side'] },
  breadboard: Breadboard,
): Edit {
  const row = Math.min(rowsOf(breadboard), Math.max(1, change.row ?? item.row));
  return { kind: 'place', item: item.id, place: { side: change.side ?? item.side, row, locked: true } };
}

/** The side to which an item is moved across, or turned. */
export const OTHER_SIDE: { readonly [S in PlacedItem['side']]: PlacedItem['side'] } = {
  ae: 'fj',
  fj: 'ae',
  across: 'turned',
  turned: 'across',
};

/** What is selected: where it is plugged in, and what moves it. */
export function HoleItemCard({
  plan,
  holes,
  item,
  placing,
}: {
  readonly plan: Plan;
  readonly holes: HolePlan;
  readonly item: PlacedItem;
  readonly placing: Placing;
}) {
  const { sheets, edit } = useWorkbench();
  const [row, setRow] = useState<number | string>(item.row);
  const name = itemText(plan, sheets, item.id);
  const move = (change: Parameters<typeof moved>[1]) =>
    placing.place([moved(item, change, holes.breadboard)], 'all', `move ${name} on the breadboard`);
  const commit = () => {
    const wanted = Number(row);
    if (Number.isInteger(wanted) && wanted >= 1 && wanted !== item.row) move({ row: wanted });
    else setRow(item.row);
  };
  const isAcross = item.side === 'across' || item.side === 'turned';
  return (
    <section aria-label={`${name} on the breadboard`}>
      <h3>
        {name} {item.locked && <IconLock size={13} aria-label="locked in its place" />}
      </h3>
      <p className="quiet">{plugText(plan, sheets, item)}</p>
      <div className={styles.controls}>
        <NumberInput
          label="First row"
          size="xs"
          w={90}
          min={1}
          max={rowsOf(holes.breadboard)}
          value={row}
          disabled={placing.isBusy}
          onChange={setRow}
          onBlur={commit}
          onKeyDown={(event) => {
            if (event.key === 'Enter') commit();
          }}
        />
        {isAcross ? (
          <Button size="xs" variant="default" disabled={placing.isBusy} onClick={() => move({ side: OTHER_SIDE[item.side] })}>
            Turn half round
          </Button>
        ) : (
          <SegmentedControl
            aria-label="Half of the breadboard"
            size="xs"
            disabled={placing.isBusy}
            data={[
              { value: 'ae', label: 'a–e' },
              { value: 'fj', label: 'f–j' },
            ]}
            value={item.side}
            onChange={(side) => move({ side: side === 'ae' ? 'ae' : 'fj' })}
          />
        )}
        {item.locked && (
          <Button
            size="xs"
            variant="default"
            onClick={() => edit([{ kind: 'place', item: item.id, place: { side: item.side, row: item.row } }])}
          >
            Unlock
          </Button>
        )}
        {!item.id.includes(':') && (
          <Button
            size="xs"
            variant="default"
            disabled={placing.isBusy}
            onClick={() =>
              placing.place(
                [{ kind: 'place', item: item.id, place: { side: 'off', locked: true } }],
                'all',
                `leave ${name} off the breadboard`,
              )
            }
          >
            Leave off the breadboard
          </Button>
        )}
      </div>
    </section>
  );
}
