import { useMemo } from 'react';
import { findBuses } from '@roof-chart/core/nets/buses';
import { findNets } from '@roof-chart/core/nets/nets';
import { type PlanTerminal, planTerminals } from '@roof-chart/core/nets/terminals';
import { boardOrThrow } from '@roof-chart/core/plan/edit';
import type { Plan } from '@roof-chart/core/plan/plan';
import { selectPlanFindings } from '../../state/selectors';
import { useAppSelector } from '../../state/store';
import { useWorkbench } from '../../state/workbench';
import { useStableReference, useStableSet } from '../../ui/chart/stableReference';
import { chartBrackets, chartChoices, chartGroups, chartLines, clashColumns } from './chartModel';
import { boardBlocks, columnOfEnd } from './columns';

/** What the chart of a plan is drawn from. */
export type ChartData = ReturnType<typeof useChart>;

export function useChart(plan: Plan) {
  const { sheets } = useWorkbench();
  const scope = useAppSelector((state) => state.session.scope);
  const findings = useAppSelector(selectPlanFindings);
  const board = boardOrThrow(plan, sheets);
  const blocks = useMemo(() => boardBlocks(board), [board]);
  const nets = useMemo(() => findNets(plan, sheets), [plan, sheets]);
  const buses = useMemo(() => findBuses(plan, sheets), [plan, sheets]);
  const items = useMemo(() => planTerminals(plan, sheets), [plan, sheets]);
  const groups = useMemo(
    () => chartGroups({ plan, sheets, board }, scope, findings, blocks),
    [plan, sheets, board, scope, findings, blocks],
  );
  return { sheets, scope, findings, board, blocks, nets, buses, items, groups };
}

/** What depends on the row with the focus: where its wire could go, and what is drawn back because it could not. */
export function useChartMarks({ groups, board, nets, buses, blocks }: ChartData, row: string | null, item: PlanTerminal | undefined) {
  const could = groups.flatMap((g) => g.rows).find((r) => r.item.key === row)?.could;
  const choices = useMemo(() => (item && could ? chartChoices(board, nets, item, could) : null), [board, nets, item, could]);
  const lines = useMemo(() => chartLines(groups, nets), [groups, nets]);
  const clashes = useStableSet(useMemo(() => clashColumns(nets), [nets]));
  const brackets = useStableReference(useMemo(() => chartBrackets(board, buses, item?.terminal), [board, buses, item?.terminal]));
  const cannot = useMemo(
    () =>
      choices ? blocks.flatMap((b) => b.columns.filter((c) => c.tone !== 'quiet' && !choices.has(c.sameAs ?? c.id)).map((c) => c.id)) : [],
    [choices, blocks],
  );
  const dim = useStableSet(cannot);
  const here = item?.wire && columnOfEnd(item.wire.end);
  const free = choices ? [...choices].filter(([id, choice]) => choice !== 'taken' && id !== here).length : 0;
  return { choices, lines, clashes, brackets, dim, here, free };
}
