import { Button, Menu, ScrollArea } from '@mantine/core';
import { memo, useMemo } from 'react';
import { behindShifter } from '@roof-chart/core/assign/behindShifter';
import { terminalText } from '@roof-chart/core/text/names';
import { biasEnds } from '@roof-chart/core/electrics/reports/biasEnds';
import { type EndReason, type OtherEnd, otherEnds } from '@roof-chart/core/nets/otherEnds';
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

/** The terminals of other parts, by the reason for which they serve. */
function OtherEnds({ plan, item, ends }: Pick<PartEndMenuProps, 'plan' | 'item'> & { readonly ends: readonly OtherEnd[] }) {
  const { sheets, edit } = useWorkbench();
  const connect = ({ key, placement, terminal, ungrounds }: OtherEnd) =>
    edit(
      [
        ...(ungrounds ? [{ kind: 'unwire' as const, placement, terminal }] : []),
        { kind: 'wire', placement: item.placement.id, terminal: item.terminal.id, end: { to: 'terminal', placement, terminal } },
      ],
      `${terminalText(plan, sheets, item.key)}: connected to ${terminalText(plan, sheets, key)}`,
    );
  return [...new Set(ends.map((end) => end.reason))].map((reason) => (
    <div key={reason}>
      <Menu.Label>{REASON[reason]}</Menu.Label>
      {ends
        .filter((end) => end.reason === reason)
        .map((end) => (
          <Menu.Item key={end.key} onClick={() => connect(end)}>
            {terminalText(plan, sheets, end.key)}
          </Menu.Item>
        ))}
    </div>
  ));
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
          <OtherEnds plan={plan} item={item} ends={ends} />
        </ScrollArea.Autosize>
      </Menu.Dropdown>
    </Menu>
  );
});
