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

type ItemProps = Pick<WishMenuProps, 'plan' | 'item'>;

/** What is preferred or avoided for one wire. */
function WireItems({ plan, board, item, column }: WishMenuProps) {
  const { sheets, edit } = useWorkbench();
  const wish = plan.wishes[item.key];
  const place = { placement: item.placement.id, terminal: item.terminal.id };
  const set = (next: Wish) => edit([{ kind: 'wish', ...place, wish: Object.keys(next).length === 0 ? null : next }]);
  const wired = item.wire?.end.to === 'pin' ? conductor(board, item.wire.end.pin) : undefined;
  const focused = column && board.pins.get(column)?.kind === 'io' ? conductor(board, column) : undefined;
  const pin = focused ?? wired;
  const label = pin === undefined ? '' : (board.pins.get(pin)?.label ?? pin);
  const kind = PIN_ROLES[item.terminal.role]?.line?.kind;
  const bus = kind && findBuses(plan, sheets).find((b) => b.kind === kind && b.members.some((m) => m.id === item.placement.id));
  const controller = bus?.controller === undefined ? undefined : board.controllers.get(bus.controller);
  const isSoftwarePwm = plan.softwarePwm[item.key] === true;
  // As the sheet has it: behind a channel it has the role of another.
  const terminal = item.part.terminals.list.find(({ id }) => id === item.terminal.id);
  return (
    <>
      <Menu.Label>When pins are assigned: {terminalText(plan, sheets, item.key)}</Menu.Label>
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
      {terminal && canBeSoftwarePwm(terminal) && (
        <Menu.Item onClick={() => edit([{ kind: 'software-pwm', ...place, on: !isSoftwarePwm }])}>
          PWM by {isSoftwarePwm ? 'a timer' : 'software'}
        </Menu.Item>
      )}
    </>
  );
}

/** How the signals of the part lie together. Bus lines follow their bus; only individual signals can be kept together. */
function TogetherItems({ plan, item: { placement, part } }: ItemProps) {
  const { edit } = useWorkbench();
  const signals = part.terminals.list.filter((t) => wantsPin(t) && !PIN_ROLES[t.role]?.line && t.role !== 'strap');
  if (signals.length < 2) return null;
  const together = plan.together[placement.id];
  const keep = (how: Together) => edit([{ kind: 'together', placement: placement.id, how: together === how ? null : how }]);
  return (
    <>
      <Menu.Label>Signals of {placement.name}</Menu.Label>
      <Menu.Item onClick={() => keep('adjacent')}>{together === 'adjacent' ? 'On any pins' : 'On adjacent pins'}</Menu.Item>
      <Menu.Item onClick={() => keep('port')}>{together === 'port' ? 'On any port' : 'On one port'}</Menu.Item>
    </>
  );
}

/** Locks all wires of the part, or none. */
function LockItems({ plan, item: { placement } }: ItemProps) {
  const { edit } = useWorkbench();
  const own = Object.entries(plan.wires).filter(([key]) => key.startsWith(`${placement.id}:`));
  if (placement.onBoard || own.length === 0) return null;
  const lockAll = (locked: boolean) => {
    const edits = own.flatMap(([key, wire]): Edit[] =>
      wire.locked === locked ? [] : [{ kind: 'lock', placement: placement.id, terminal: key.slice(placement.id.length + 1), locked }],
    );
    if (edits.length > 0) edit(edits, `${locked ? 'lock' : 'unlock'} all wires of ${placement.name}`);
  };
  const locked = own.filter(([, wire]) => wire.locked).length;
  return (
    <>
      <Menu.Label>Wires of {placement.name}</Menu.Label>
      {locked < own.length && <Menu.Item onClick={() => lockAll(true)}>Lock all {own.length}</Menu.Item>}
      {locked > 0 && <Menu.Item onClick={() => lockAll(false)}>Unlock all</Menu.Item>}
    </>
  );
}

/** Preferences for this wire and part, entered from the row and saved in the plan. */
export const WishMenu = memo(function WishMenu(props: WishMenuProps) {
  const { plan, item } = props;
  const isSet = plan.wishes[item.key] !== undefined || plan.together[item.placement.id] !== undefined;
  return (
    <Menu position="top-start" withinPortal transitionProps={{ duration: 0 }}>
      <Menu.Target>
        <Button size="compact-xs" variant={isSet ? 'light' : 'default'} leftSection={<IconPin size={13} />}>
          Preference
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
        <WireItems {...props} />
        <TogetherItems plan={plan} item={item} />
        <LockItems plan={plan} item={item} />
      </Menu.Dropdown>
    </Menu>
  );
});
