import { has } from '../../collections/has';
import { type PlanTerminal, planTerminals } from '../../nets/terminals';
import { boardOf, type Edit } from '../../plan/edit';
import { type Plan, sameEnd, splitKey, type TerminalKey } from '../../plan/plan';
import type { Sheets } from '../../sheets/sheetIndex';
import { biasEnds } from './biasEnds';
import { ledReports } from './ledReport';
import { setDriversOf } from './setDrivers';
import { calculatedTransistor } from './transistorFor';

/** The resistor that the calculators give at each terminal, in ohms; terminals for which none on hand fits are left out. */
function calculated(plan: Plan, sheets: Sheets): ReadonlyMap<TerminalKey, number> {
  const leds = ledReports(plan, sheets).map(({ resistorAt, fitOhms }) => [resistorAt, fitOhms] as const);
  const drivers = setDriversOf(plan, sheets).flatMap(({ key, fitOhms }) => (key === undefined ? [] : [[key, fitOhms] as const]));
  return new Map([...leds, ...drivers].flatMap(([key, ohms]) => (ohms === undefined ? [] : [[key, ohms] as const])));
}

/** Whether a component is marked as done on the bench: its value is fixed then. */
const isDone = (plan: Plan, key: TerminalKey, role: string): boolean => {
  const { placement, terminal } = splitKey(key);
  return plan.steps[`component:${placement}:${role}.${terminal}`] !== undefined;
};

function resistorEdits(before: Plan, after: Plan, sheets: Sheets): readonly Edit[] {
  if (before.series === after.series && Object.keys(after.series).length === 0) return [];
  const [was, now] = [calculated(before, sheets), calculated(after, sheets)];
  return [...now].flatMap(([key, ohms]): Edit[] => {
    const value = after.series[key];
    const followed = value !== undefined && value === before.series[key] && value === was.get(key);
    return followed && ohms !== value && !isDone(after, key, 'series') ? [{ kind: 'series', ...splitKey(key), ohms }] : [];
  });
}

const dividerOf = (plan: Plan, sheets: Sheets, item: PlanTerminal) => biasEnds(plan, sheets, item).find(({ to }) => to === 'divider');

function dividerEdits(before: Plan, after: Plan, sheets: Sheets): readonly Edit[] {
  return planTerminals(after, sheets)
    .filter(has('wire'))
    .flatMap((item): Edit[] => {
      const { end, locked } = item.wire;
      if (end.to !== 'divider' || locked || !sameEnd(before.wires[item.key]?.end, end)) return [];
      const [was, now] = [dividerOf(before, sheets, item), dividerOf(after, sheets, item)];
      if (!now || !sameEnd(was, end) || sameEnd(now, end) || isDone(after, item.key, 'top') || isDone(after, item.key, 'bottom')) return [];
      return [{ kind: 'wire', ...splitKey(item.key), end: now }];
    });
}

/** Base resistors with their calculated value; the kind of the transistor stays. */
function transistorEdits(before: Plan, after: Plan, sheets: Sheets): readonly Edit[] {
  if (Object.keys(after.drivers).length === 0) return [];
  const [was, now] = [boardOf(before, sheets), boardOf(after, sheets)];
  if (!was || !now) return [];
  const itemsBefore = new Map(planTerminals(before, sheets).map((item) => [item.key, item]));
  return planTerminals(after, sheets).flatMap((item): Edit[] => {
    const driver = after.drivers[item.key];
    const old = itemsBefore.get(item.key);
    if (!driver || !old || driver !== before.drivers[item.key] || isDone(after, item.key, 'base') || isDone(after, item.key, 'transistor'))
      return [];
    const [had, gets] = [
      calculatedTransistor({ plan: before, sheets, board: was }, old),
      calculatedTransistor({ plan: after, sheets, board: now }, item),
    ];
    const follows = had?.kind === driver.kind && had.ohms === driver.ohms && gets?.kind === driver.kind && gets.ohms !== driver.ohms;
    return follows ? [{ kind: 'driver', ...splitKey(item.key), driver: { ...driver, ohms: gets.ohms } }] : [];
  });
}

/** What follows a change: LED resistors, current-setting resistors, base resistors and contrast dividers that had their calculated value get the new one.
 *  A value that was chosen otherwise, one that the change itself sets, and one marked as done on the bench stay.
 *  @param before the plan before the change
 *  @example followValues(plan, edited(plan, { kind: 'values-on-hand', valuesOnHand: { series: 'E24' } }), sheets) // [{ kind: 'series', ohms: 240, ... }] */
export const followValues = (before: Plan, after: Plan, sheets: Sheets): readonly Edit[] =>
  before === after
    ? []
    : [...resistorEdits(before, after, sheets), ...transistorEdits(before, after, sheets), ...dividerEdits(before, after, sheets)];
