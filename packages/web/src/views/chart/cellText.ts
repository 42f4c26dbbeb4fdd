import { endFit, fitReason } from '@roof-chart/core/assign/fit/endFit';
import { wantsPin } from '@roof-chart/core/assign/fit/pinFit';
import type { PlanTerminal } from '@roof-chart/core/nets/terminals';
import { sameEnd } from '@roof-chart/core/plan/plan';
import { endOfColumn } from './columns';
import type { ChartData, useChartMarks } from './useChart';

type Marks = ReturnType<typeof useChartMarks>;

/** What a cell of the chart says to a screen reader: the column, and whether the wire of the row is there or could be. */
export function cellText({ items, board, blocks }: ChartData, choices: Marks['choices'], key: string, column: string): string {
  const target = items.find((i) => i.key === key);
  const end = endOfColumn(board, column);
  const name = blocks.flatMap((b) => b.columns).find((c) => c.id === column)?.title ?? column;
  if (!target || !end) return name;
  if (sameEnd(target.wire?.end, end)) return `${name}: connected here${target.wire?.locked ? ', locked' : ''}`;
  const fit = endFit(board, target.part, target.terminal, end);
  if (fit.verdict === 'cannot') return `${name}: not possible. ${fitReason(fit, target.terminal, board.pins.get(column))}`;
  const choice = choices?.get(column);
  return `${name}: ${choice === 'taken' ? 'error, in use' : choice === 'costs' ? 'possible, with a caveat' : 'possible'}`;
}

/** "Display SDA: 3 other free pins". */
export function freeText({ placement, terminal }: PlanTerminal, { free, here }: Pick<Marks, 'free' | 'here'>): string {
  const what = wantsPin(terminal) ? 'pin' : 'place';
  return `${placement.name} ${terminal.label}: ${free === 0 ? 'no' : free} ${here ? 'other ' : ''}free ${what}${free === 1 ? '' : 's'}`;
}
