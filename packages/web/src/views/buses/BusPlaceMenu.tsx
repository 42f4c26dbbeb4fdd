import { Button, Loader, Menu } from '@mantine/core';
import { IconChevronDown } from '@tabler/icons-react';
import { useState } from 'react';
import type { Bus } from '@roof-chart/core/nets/buses';
import { boardOf } from '@roof-chart/core/plan/edit';
import type { Plan } from '@roof-chart/core/plan/plan';
import type { BusPlaces } from '@roof-chart/core/review/busPlaces';
import { useWorkbench } from '../../app/workbench';
import styles from './Buses.module.css';
import { busLabel, costWords, placeHead } from './placeWords';

/** Every legal place of a bus with what it costs, and by software on any pins. */
export function BusPlaceMenu({ plan, bus }: { readonly plan: Plan; readonly bus: Bus }) {
  const { sheets, edit, feed } = useWorkbench();
  const board = boardOf(plan, sheets)!;
  const [found, setFound] = useState<{ readonly plan: Plan; readonly bus: string; readonly places: BusPlaces | undefined }>();
  const label = busLabel(board, bus);
  const places = found?.plan === plan && found.bus === bus.id ? found.places : undefined;
  const open = async () => {
    const answer = await feed.ask((reviewer) => reviewer.busPlaces(plan, bus.id));
    setFound({ plan, bus: bus.id, places: answer });
  };
  return (
    <Menu position="bottom-end" width={430} withinPortal transitionProps={{ duration: 0 }} onOpen={() => void open()}>
      <Menu.Target>
        <Button size="compact-sm" variant="default" rightSection={<IconChevronDown size={14} />} aria-label={`Put ${label} on other pins`}>
          Put this bus on…
        </Button>
      </Menu.Target>
      <Menu.Dropdown className={styles.places!}>
        {!places && (
          <Menu.Label>
            <Loader size="xs" /> Looking for places
          </Menu.Label>
        )}
        {places?.places.length === 0 && <Menu.Label>No other place on this board: its pins are in use or a wire is locked.</Menu.Label>}
        {places?.places.map((place) => (
          <Menu.Item
            key={`${place.controller} ${Object.values(place.pins).join(' ')} ${place.joins.join(' ')}`}
            onClick={() => edit(place.edits, `put ${label} on ${place.title}`)}
          >
            <span className={styles.placeHead}>{placeHead(plan, board, place)}</span>
            <span className={styles.placeCosts}>{costWords(plan, sheets, bus, places.now, place)}</span>
          </Menu.Item>
        ))}
        {places !== undefined && places.places.length > 0 && places.blocked > 0 && (
          <Menu.Label>
            {places.blocked} {places.blocked === 1 ? 'place is' : 'places are'} taken by other signals or locked wires.
          </Menu.Label>
        )}
      </Menu.Dropdown>
    </Menu>
  );
}
