import clsx from 'clsx';
import { Button, Loader, Menu } from '@mantine/core';
import { IconChevronDown } from '@tabler/icons-react';
import type { Bus } from '@roof-chart/core/nets/buses';
import { boardOrThrow } from '@roof-chart/core/plan/edit';
import { counted } from '@roof-chart/core/quantity/format';
import type { Plan } from '@roof-chart/core/plan/plan';
import type { BusPlaces } from '@roof-chart/core/review/busPlaces';
import { useReading } from '../../ui/useReading';
import { useWorkbench } from '../../state/workbench';
import styles from './Buses.module.css';
import { busLabel, placeCostText, nowhereText, placeHead } from '@roof-chart/core/text/views/busPlaceText';

interface BusPlaceMenuProps {
  readonly plan: Plan;
  readonly bus: Bus;
}

/** The places, looked for while the menu is open. */
function Places({ plan, bus }: BusPlaceMenuProps) {
  const { sheets, edit } = useWorkbench();
  const board = boardOrThrow(plan, sheets);
  const { value, isCurrent, failure } = useReading<BusPlaces | undefined>(plan, (reviewer) => reviewer.busPlaces(plan, bus.id));
  if (failure !== null) return <Menu.Label role="alert">{failure}</Menu.Label>;
  if (!isCurrent || !value)
    return (
      <Menu.Label>
        <Loader size="xs" /> Looking for places
      </Menu.Label>
    );
  const { places, blocked, now } = value;
  if (places.length === 0) return <Menu.Label>{nowhereText(board, bus, blocked)}</Menu.Label>;
  return (
    <>
      {places.map((place) => (
        <Menu.Item
          key={`${place.controller} ${Object.values(place.pins).join(' ')} ${place.joins.join(' ')}`}
          onClick={() => edit(place.edits, `put ${busLabel(board, bus)} on ${place.title}`)}
        >
          <span className={styles.placeHead}>{placeHead(plan, board, place)}</span>
          <span className={styles.placeCosts}>{placeCostText(plan, sheets, { kind: bus.kind, now }, place)}</span>
        </Menu.Item>
      ))}
      {blocked > 0 && (
        <Menu.Label>
          {counted(blocked, 'place')} {blocked === 1 ? 'is' : 'are'} taken by other signals or locked wires.
        </Menu.Label>
      )}
    </>
  );
}

/** Every legal place of a bus with what it costs, and by software on any pins. */
export function BusPlaceMenu({ plan, bus }: BusPlaceMenuProps) {
  const { sheets } = useWorkbench();
  const label = busLabel(boardOrThrow(plan, sheets), bus);
  return (
    <Menu position="bottom-end" width={430} withinPortal transitionProps={{ duration: 0 }}>
      <Menu.Target>
        <Button size="compact-sm" variant="default" rightSection={<IconChevronDown size={14} />} aria-label={`Put this bus on… (${label})`}>
          Put this bus on…
        </Button>
      </Menu.Target>
      <Menu.Dropdown className={clsx(styles.places)}>
        <Places plan={plan} bus={bus} />
      </Menu.Dropdown>
    </Menu>
  );
}
