import { Button, Menu } from '@mantine/core';
import { memo, useEffect, useState } from 'react';
import { placementText } from '@roof-chart/core/text/names';
import { commonsOf, segmentsOfPart } from '@roof-chart/core/nets/multiplexed';
import type { PlanTerminal } from '@roof-chart/core/nets/terminals';
import type { Plan } from '@roof-chart/core/plan/plan';
import type { LedWay } from '@roof-chart/core/review/ledWays';
import { useWorkbench } from '../../state/workbench';

/** What a way is called in the menu. */
function wayWords(plan: Plan, { kind, placement, adds }: LedWay): string {
  if (placement !== undefined) return `${kind === 'segments' ? 'Segments' : 'All lines'} on ${placementText(plan, placement)}`;
  if (kind === 'driver') return `All lines on a new ${adds}`;
  return kind === 'segments' ? `Segments on a new ${adds}` : `Segments and digits on two: ${adds}`;
}

interface LedDriverMenuProps {
  readonly plan: Plan;
  readonly item: PlanTerminal;
}

/** Puts the bare LEDs of a part on a driver chip or on shift registers, with the resistors and transistors that they need there. */
export const LedDriverMenu = memo(function LedDriverMenu({ plan, item }: LedDriverMenuProps) {
  const { edit, workers } = useWorkbench();
  const [isOpen, setOpen] = useState(false);
  const [found, setFound] = useState<{ readonly plan: Plan; readonly ways: readonly LedWay[] } | null>(null);
  const { id, name } = item.placement;
  useEffect(() => {
    if (!isOpen) return;
    let current = true;
    void workers
      .ask((reviewer) => reviewer.ledWays(plan, id))
      .then((ways) => {
        if (current) setFound({ plan, ways });
      });
    return () => {
      current = false;
    };
  }, [isOpen, workers, plan, id]);
  if (item.placement.onBoard || segmentsOfPart(item.part).length === 0 || commonsOf(item.part).length === 0) return null;
  const ways = found?.plan === plan ? found.ways : undefined;
  return (
    <Menu position="top-start" withinPortal opened={isOpen} onChange={setOpen} transitionProps={{ duration: 0 }}>
      <Menu.Target>
        <Button size="compact-xs" variant="default">
          Use a driver
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Label>{name}, with the parts that it needs</Menu.Label>
        {!ways && <Menu.Item disabled>Checking drivers…</Menu.Item>}
        {ways?.length === 0 && <Menu.Item disabled>No driver fits: a wire is locked, or the board has no pins for one</Menu.Item>}
        {ways?.map((way) => (
          <Menu.Item key={`${way.kind} ${way.placement ?? way.adds}`} onClick={() => edit(way.edits, `${name}: ${wayWords(plan, way)}`)}>
            {wayWords(plan, way)}
          </Menu.Item>
        ))}
      </Menu.Dropdown>
    </Menu>
  );
});
