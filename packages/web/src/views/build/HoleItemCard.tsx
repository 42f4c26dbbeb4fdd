import { atOrThrow, findOrThrow } from '@roof-chart/core/collections/orThrow';
import { Button, NumberInput, SegmentedControl } from '@mantine/core';
import { IconLock } from '@tabler/icons-react';
import { useState } from 'react';
import { alongLane, laneRows } from '@roof-chart/core/outputs/holes/breadboard';
import type { HolePlan, PlacedItem } from '@roof-chart/core/outputs/holes/holePlan';
import { type ItemMove, sideOptionOf } from '@roof-chart/core/outputs/holes/moveItem';
import type { Plan } from '@roof-chart/core/plan/plan';
import { itemText, sideOptionText, plugText } from '@roof-chart/core/text/views/holeText';
import { useWorkbench } from '../../state/workbench';
import styles from './Holes.module.css';
import type { Placing } from './usePlacing';

interface HoleItemCardProps {
  readonly plan: Plan;
  readonly holes: HolePlan;
  readonly item: PlacedItem;
  readonly placing: Placing;
  readonly onMove: (item: string, move: ItemMove) => void;
}

/** The first row of an item, as a field that moves it. */
function RowField({ holes, item, onMove }: Pick<HoleItemCardProps, 'holes' | 'item' | 'onMove'>) {
  const own = alongLane(holes.breadboard, item.row);
  const [typed, setTyped] = useState({ at: own, row: own as number | string });
  // Moved in another way, the field follows.
  if (typed.at !== own) setTyped({ at: own, row: own });
  const commit = () => {
    const wanted = Number(typed.row);
    if (Number.isInteger(wanted) && wanted >= 1 && wanted !== own) onMove(item.id, { to: wanted });
    else setTyped({ at: own, row: own });
  };
  return (
    <NumberInput
      label="First row"
      size="xs"
      w={90}
      min={1}
      max={laneRows(holes.breadboard)}
      value={typed.row}
      onChange={(row) => setTyped({ at: own, row })}
      onBlur={commit}
      onKeyDown={(event) => {
        if (event.key === 'Enter') commit();
      }}
    />
  );
}

/** The half that an item is in; what lies over the gap is turned instead. */
function SideControl({ holes, item, onMove }: Pick<HoleItemCardProps, 'holes' | 'item' | 'onMove'>) {
  const own = atOrThrow(item.sideOptions, sideOptionOf(holes, item));
  if (item.side === 'across' || item.side === 'turned') {
    const turned = findOrThrow(item.sideOptions, ({ side, rowOffset }) => side !== own.side && rowOffset === own.rowOffset);
    const beside = item.sideOptions.find(({ side, rowOffset }) => side === own.side && rowOffset !== own.rowOffset);
    return (
      <>
        <Button size="xs" variant="default" onClick={() => onMove(item.id, { as: turned })}>
          Turn half round
        </Button>
        {beside && (
          <Button size="xs" variant="default" onClick={() => onMove(item.id, { as: beside })}>
            To the other breadboard
          </Button>
        )}
      </>
    );
  }
  return (
    <SegmentedControl
      aria-label="Half of the breadboard"
      size="xs"
      data={item.sideOptions.map((one, at) => ({ value: String(at), label: sideOptionText(holes.breadboard, one) }))}
      value={String(item.sideOptions.indexOf(own))}
      onChange={(at) => onMove(item.id, { as: atOrThrow(item.sideOptions, Number(at)) })}
    />
  );
}

/** What is selected: where it is plugged in, and what moves it. */
export function HoleItemCard({ plan, holes, item, placing, onMove }: HoleItemCardProps) {
  const { sheets, edit } = useWorkbench();
  const name = itemText(plan, sheets, item.id);
  const unlock = () => edit([{ kind: 'place', item: item.id, place: { side: item.side, row: item.row } }]);
  const leaveOff = () =>
    placing.place([{ kind: 'place', item: item.id, place: { side: 'off', locked: true } }], 'all', `leave ${name} off the breadboard`);
  return (
    <section aria-label={`${name} on the breadboard`}>
      <h3>
        {name} {item.locked && <IconLock size={13} aria-label="locked in its place" />}
      </h3>
      <p className="quiet">{plugText(plan, sheets, item)}</p>
      <div className={styles.controls}>
        <RowField holes={holes} item={item} onMove={onMove} />
        <SideControl holes={holes} item={item} onMove={onMove} />
        {item.locked && (
          <Button size="xs" variant="default" onClick={unlock}>
            Unlock
          </Button>
        )}
        {!item.id.includes(':') && (
          <Button size="xs" variant="default" onClick={leaveOff}>
            Leave off the breadboard
          </Button>
        )}
      </div>
    </section>
  );
}
