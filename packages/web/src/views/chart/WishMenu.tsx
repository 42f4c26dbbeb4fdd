import { Button, Menu } from '@mantine/core';
import { IconPin } from '@tabler/icons-react';
import { memo } from 'react';
import { wantsPin } from '@roof-chart/core/assign/fit/pinFit';
import { findBuses } from '@roof-chart/core/nets/buses';
import type { PlanTerminal } from '@roof-chart/core/nets/terminals';
import { terminalText } from '@roof-chart/core/text/names';
import type { Edit } from '@roof-chart/core/plan/edit';
import type { Plan, Together, Wish } from '@roof-chart/core/plan/plan';
import { PIN_ROLES } from '@roof-chart/core/sheets/roles';
import { canBeSoftwarePwm } from '@roof-chart/core/sheets/softwarePwm';
import { conductor, type IndexedBoard } from '@roof-chart/core/sheets/sheetIndex';
import { useWorkbench } from '../../state/workbench';

interface WishMenuProps {
  readonly plan: Plan;
  readonly board: IndexedBoard;
  readonly item: PlanTerminal;
  readonly column: string | null;
}

const without = (wish: Wish | undefined, ...keys: readonly (keyof Wish)[]): Wish =>
  Object.fromEntries(Object.entries(wish ?? {}).filter(([key]) => !keys.includes(key as keyof Wish)));

/** Preferences for this wire and part, entered from the row and saved in the plan. */
export const WishMenu = memo(function WishMenu({ plan, board, item, column }: WishMenuProps) {
  const { sheets, edit } = useWorkbench();
  const wish = plan.wishes[item.key];
  const place = { placement: item.placement.id, terminal: item.terminal.id };
  const words = terminalText(plan, sheets, item.key);
  const set = (next: Wish) => {
    const empty = Object.keys(next).length === 0;
    edit([{ kind: 'wish', ...place, wish: empty ? null : next }]);
  };
  const wired = item.wire?.end.to === 'pin' ? conductor(board, item.wire.end.pin) : undefined;
  const focused = column && board.pins.get(column)?.kind === 'io' ? conductor(board, column) : undefined;
  const pin = focused ?? wired;
  const label = pin === undefined ? '' : (board.pins.get(pin)?.label ?? pin);
  const kind = PIN_ROLES[item.terminal.role]?.line?.kind;
  const bus = kind && findBuses(plan, sheets).find((b) => b.kind === kind && b.members.some((m) => m.id === item.placement.id));
  const controller = bus?.controller === undefined ? undefined : board.controllers.get(bus.controller);
  const isSoftwarePwm = plan.softwarePwm[item.key] === true;
  const sheetTerminal = item.part.terminals.list.find((t) => t.id === item.terminal.id)!;
  const together = plan.together[item.placement.id];
  const lie = (how: Together) => {
    const next = together === how ? null : how;
    edit([{ kind: 'together', placement: item.placement.id, how: next }]);
  };
  // Bus lines follow their bus; only individual signals can be kept together.
  const several = item.part.terminals.list.filter((t) => wantsPin(t) && !PIN_ROLES[t.role]?.line && t.role !== 'strap').length > 1;
  const own = Object.entries(plan.wires).filter(([key]) => key.startsWith(`${item.placement.id}:`));
  const lockPart = (locked: boolean) => {
    const edits = own.flatMap(([key, wire]): Edit[] =>
      wire.locked === locked
        ? []
        : [{ kind: 'lock', placement: item.placement.id, terminal: key.slice(item.placement.id.length + 1), locked }],
    );
    if (edits.length > 0) edit(edits, `${locked ? 'lock' : 'unlock'} all wires of ${item.placement.name}`);
  };
  const locked = own.filter(([, wire]) => wire.locked).length;
  return (
    <Menu position="top-start" withinPortal transitionProps={{ duration: 0 }}>
      <Menu.Target>
        <Button size="compact-xs" variant={wish || together ? 'light' : 'default'} leftSection={<IconPin size={13} />}>
          Preference
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Label>When pins are assigned: {words}</Menu.Label>
        {pin !== undefined && wish?.pin !== pin && (
          <Menu.Item onClick={() => set({ ...without(wish, 'not'), pin })}>Prefer {label}</Menu.Item>
        )}
        {pin !== undefined && !wish?.not?.includes(pin) && (
          <Menu.Item onClick={() => set({ ...without(wish, wish?.pin === pin ? 'pin' : 'not'), not: [...(wish?.not ?? []), pin] })}>
            Avoid {label}
          </Menu.Item>
        )}
        {controller && wish?.controller !== controller.id && (
          <Menu.Item onClick={() => set({ ...wish, controller: controller.id })}>Prefer {controller.title}</Menu.Item>
        )}
        {pin === undefined && <Menu.Item disabled>Move the focus to a pin to prefer it</Menu.Item>}
        {wish && <Menu.Item onClick={() => set({})}>No preference</Menu.Item>}
        {canBeSoftwarePwm(sheetTerminal) && (
          <Menu.Item onClick={() => edit([{ kind: 'software-pwm', ...place, on: !isSoftwarePwm }])}>
            PWM by {isSoftwarePwm ? 'a timer' : 'software'}
          </Menu.Item>
        )}
        {several && (
          <>
            <Menu.Label>Signals of {item.placement.name}</Menu.Label>
            <Menu.Item onClick={() => lie('adjacent')}>{together === 'adjacent' ? 'on any pins' : 'on adjacent pins'}</Menu.Item>
            <Menu.Item onClick={() => lie('port')}>{together === 'port' ? 'on any port' : 'on one port'}</Menu.Item>
          </>
        )}
        {!item.placement.onBoard && own.length > 0 && (
          <>
            <Menu.Label>Wires of {item.placement.name}</Menu.Label>
            {locked < own.length && <Menu.Item onClick={() => lockPart(true)}>lock all {own.length}</Menu.Item>}
            {locked > 0 && <Menu.Item onClick={() => lockPart(false)}>unlock all</Menu.Item>}
          </>
        )}
      </Menu.Dropdown>
    </Menu>
  );
});
