import { Button, Menu, ScrollArea } from '@mantine/core';
import { memo, useMemo } from 'react';
import { behindShifter } from '@roof-chart/core/assign/behindShifter';
import { terminalText } from '@roof-chart/core/text/names';
import { biasEnds } from '@roof-chart/core/electrics/reports/biasEnds';
import { type EndReason, otherEnds } from '@roof-chart/core/nets/otherEnds';
import type { PlanTerminal } from '@roof-chart/core/nets/terminals';
import { endText } from '@roof-chart/core/outputs/endText';
import { endKey, type Plan } from '@roof-chart/core/plan/plan';
import { PIN_ROLES } from '@roof-chart/core/sheets/roles';
import type { IndexedBoard } from '@roof-chart/core/sheets/sheetIndex';
import { useWorkbench } from '../../state/workbench';

const REASON: { readonly [K in EndReason]: string } = {
  chain: 'Next in the chain after',
  channel: 'On a channel of a multiplexer',
  shifter: 'Through a level shifter',
  port: 'On an expander port',
  join: 'Joined with',
  strap: 'Tied to its own bus line',
  series: 'In series after',
  segment: 'At a segment output',
  digit: 'At a digit output',
  sink: 'Switched by',
};

interface PartEndMenuProps {
  readonly plan: Plan;
  readonly board: IndexedBoard;
  readonly item: PlanTerminal;
}

/** Wires a terminal to one of another part instead of a pin: the next of a chain, a channel, a port. */
export const PartEndMenu = memo(function PartEndMenu({ plan, board, item }: PartEndMenuProps) {
  const { sheets, edit } = useWorkbench();
  const ends = useMemo(() => otherEnds(plan, sheets, item), [plan, sheets, item]);
  const kind = PIN_ROLES[item.terminal.role]?.line?.kind;
  const shifted = useMemo(
    () => (kind === 'i2c' ? behindShifter({ plan, sheets, board }, [item.placement.id], kind) : undefined),
    [plan, sheets, board, item, kind],
  );
  const dividers = useMemo(() => biasEnds(plan, sheets, item), [plan, sheets, item]);
  if (item.placement.onBoard || item.wire?.locked || (ends.length === 0 && !shifted && dividers.length === 0)) return null;
  const words = terminalText(plan, sheets, item.key);
  const reasons = [...new Set(ends.map((end) => end.reason))];
  return (
    <Menu position="top-start" withinPortal transitionProps={{ duration: 0 }}>
      <Menu.Target>
        <Button size="compact-xs" variant="default">
          {dividers.length > 0 ? 'Set the voltage' : 'Connect to a part'}
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
        <ScrollArea.Autosize mah={320}>
          {shifted && (
            <>
              <Menu.Label>All lines of {item.placement.name}</Menu.Label>
              <Menu.Item onClick={() => edit(shifted.edits, `connect ${item.placement.name} through a level shifter`)}>
                through {shifted.added ? 'a new' : 'an existing'} level shifter
              </Menu.Item>
            </>
          )}
          {dividers.length > 0 && <Menu.Label>Between the supply of {item.placement.name} and ground</Menu.Label>}
          {dividers.map((end) => (
            <Menu.Item
              key={endKey(end)}
              onClick={() => edit([{ kind: 'wire', placement: item.placement.id, terminal: item.terminal.id, end }])}
            >
              {endText(plan, sheets, end)}
            </Menu.Item>
          ))}
          {reasons.map((reason) => (
            <div key={reason}>
              <Menu.Label>{REASON[reason]}</Menu.Label>
              {ends
                .filter((end) => end.reason === reason)
                .map((end) => (
                  <Menu.Item
                    key={end.key}
                    onClick={() =>
                      edit(
                        [
                          ...(end.ungrounds ? [{ kind: 'unwire' as const, placement: end.placement, terminal: end.terminal }] : []),
                          {
                            kind: 'wire',
                            placement: item.placement.id,
                            terminal: item.terminal.id,
                            end: { to: 'terminal', placement: end.placement, terminal: end.terminal },
                          },
                        ],
                        `${words}: connected to ${terminalText(plan, sheets, end.key)}`,
                      )
                    }
                  >
                    {terminalText(plan, sheets, end.key)}
                  </Menu.Item>
                ))}
            </div>
          ))}
        </ScrollArea.Autosize>
      </Menu.Dropdown>
    </Menu>
  );
});
