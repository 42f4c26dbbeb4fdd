import { terminalText } from '@roof-chart/core/text/names';
import { chainsOf, fromBoard } from '@roof-chart/core/nets/chains';
import { partOf } from '@roof-chart/core/plan/edit';
import { logicSupply } from '@roof-chart/core/nets/feedRail';
import { dividerNames, planComponents } from '@roof-chart/core/electrics/reports/components';
import type { PlanTerminal } from '@roof-chart/core/nets/terminals';
import { type Plan, sameEnd, type WireEnd } from '@roof-chart/core/plan/plan';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { wireEndText } from '@roof-chart/core/text/wireEndText';
import type { RowModel } from '../../ui/chart/rowModel';
import type { ChartGroup, ChartRow } from './chartModel';
import { columnOfEnd } from './columns';
import { TerminalHead } from './TerminalHead';

/** The rows of the chart, group by group.
 *  @param after the plan of a proposal, whose wires are shown beside those that are there */
export function rowModels(
  plan: Plan,
  sheets: Sheets,
  groups: readonly ChartGroup[],
  after: Plan | undefined,
): readonly { id: string; rows: readonly RowModel[] }[] {
  return groups.map(({ id, rows }) => ({
    id,
    rows: rows.map((row, at) => ({ ...rowModel(plan, sheets, row, at), ...(after ? changeIn(after, row.item) : {}) })),
  }));
}

/** Where the wire of a terminal goes in another plan, where that is elsewhere. */
function changeIn(after: Plan, { key, wire }: PlanTerminal): Pick<RowModel, 'next'> {
  const next = after.wires[key]?.end;
  if (next && !sameEnd(next, wire?.end)) return { next: columnOfEnd(next) };
  return wire && !next ? { next: null } : {};
}

/** What the mark of a row adds to its accessible name. */
const MARK_WORDS: { readonly [M in ChartRow['mark']]: string } = { does: '', locked: ', locked', clash: ', error' };

function rowModel(plan: Plan, sheets: Sheets, row: ChartRow, at: number): RowModel {
  const { item } = row;
  const value = item.wire ? (dividerNames(plan, sheets, item.key) ?? wireEndText(plan, sheets, item.wire.end)) : '';
  // A current-setting terminal has a resistor and no wire.
  const own = item.wire || item.terminal.role !== 'external' ? [] : planComponents(plan, sheets).filter(({ key }) => key === item.key);
  const through = own.map(({ name }) => name).join(', ');
  // The far end of a level shifter has no wire of its own: those of others end there.
  const carried = (item.carries ?? []).map((key) => terminalText(plan, sheets, key)).join(', ');
  const state = value ? `on ${value}` : through ? `connected through ${through}` : carried ? `through ${carried}` : 'not connected';
  return {
    id: item.key,
    label: `${item.placement.name} ${item.terminal.label}, ${state}${MARK_WORDS[row.mark]}`,
    head: (
      <TerminalHead
        name={at === 0 ? item.placement.name : undefined}
        volts={
          at === 1
            ? supplyNote(plan, item, (end) => wireEndText(plan, sheets, end))
            : at === 2
              ? chainNote(plan, sheets, item.placement.id)
              : undefined
        }
        label={item.terminal.label}
        colour={item.wire?.colour}
        value={item.wire?.end.to === 'terminal' ? `→${endLabel(plan, sheets, item.wire.end)}` : value || through}
        wrong={row.mark === 'clash'}
        missing={item.terminal.need === 'needed'}
      />
    ),
    could: row.could,
    at: row.at,
    mark: row.mark,
  };
}

/** The label of the terminal a chain or an expander goes on to; its part is in the row's full name. */
function endLabel(plan: Plan, sheets: Sheets, end: Extract<WireEnd, { to: 'terminal' }>): string {
  return partOf(plan, end.placement, sheets)?.terminals.get(end.terminal)?.label ?? end.terminal;
}

/** "3V3" beside a part: the rail its supply terminal is on. */
function supplyNote(plan: Plan, item: PlanTerminal, say: (end: WireEnd) => string): string {
  const supply = logicSupply(item.part);
  const end = supply && plan.wires[`${item.placement.id}:${supply.id}`]?.end;
  return end ? say(end) : '';
}

/** "2 of 3 in chain" beside a part that is chained with others. */
function chainNote(plan: Plan, sheets: Sheets, id: string): string | undefined {
  const chain = chainsOf(plan, sheets).find((one) => one.members.some((p) => p.id === id));
  const members = chain ? fromBoard(chain, sheets) : [];
  return members.length < 2 ? undefined : `${members.findIndex((p) => p.id === id) + 1} of ${members.length} in chain`;
}
