import { Button } from '@mantine/core';
import { useCallback, useDeferredValue, useEffect, useMemo, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { cellText, freeText } from '@roof-chart/core/text/views/chartText';
import { openTerminals } from '@roof-chart/core/nets/openTerminals';
import type { Plan } from '@roof-chart/core/plan/plan';
import { SignalChart } from '../../ui/chart/SignalChart';
import { sessionActions } from '../../state/sessionSlice';
import { useAppDispatch, useAppSelector, useOpenPlan } from '../../state/store';
import styles from './Chart.module.css';
import { endOfColumn } from './columns';
import { FocusCard } from './FocusCard';
import { SettlePanel } from './SettlePanel';
import { Corner } from './Corner';
import { rowModels } from './rows';
import { type ChartData, useChart, useChartMarks } from './useChart';
import { useChartEdits } from './useChartEdits';
import { useChartKeys } from './useChartKeys';
import { useSettle } from './useSettle';

const HEAD_WIDTH = 228;

function Empty({ plan }: { readonly plan: Plan }) {
  return (
    <div className={styles.empty}>
      <h2>No parts yet</h2>
      <p>Add a part to see its wires here: one row per terminal, one column per board pin.</p>
      <Button component={Link} to={`/plans/${plan.id}/stock`}>
        Add parts
      </Button>
    </div>
  );
}

export function ChartView() {
  const plan = useOpenPlan();
  const chart = useChart(plan);
  if (plan.placements.length === 0) return <Empty plan={plan} />;
  return <Chart plan={plan} chart={chart} />;
}

/** What a cell says to a screen reader. */
function describe(
  { items, board, blocks }: ChartData,
  choices: ReturnType<typeof useChartMarks>['choices'],
  row: string,
  column: string,
): string {
  const name = blocks.flatMap((b) => b.columns).find((c) => c.id === column)?.title ?? column;
  const item = items.find(({ key }) => key === row);
  const end = endOfColumn(board, column);
  return item && end ? cellText({ board, item, end, name, choice: choices?.get(column) }) : name;
}

/** Assigns pins where the address says so, once. */
function useAssignOfAddress(assign: () => void): void {
  const [params, setParams] = useSearchParams();
  const isAsked = params.has('assign');
  useEffect(() => {
    if (!isAsked) return;
    setParams({}, { replace: true });
    assign();
  }, [isAsked, setParams, assign]);
}

function useFocus() {
  const dispatch = useAppDispatch();
  const row = useAppSelector((state) => state.session.terminal);
  const column = useAppSelector((state) => state.session.pin);
  const [hovered, setHovered] = useState<string | null>(null);
  const onRow = useCallback((key: string) => void dispatch(sessionActions.focused({ terminal: key })), [dispatch]);
  const onColumn = useCallback((id: string) => void dispatch(sessionActions.focused({ pin: id })), [dispatch]);
  const onFocus = (terminal: string | null, pin: string | null) => dispatch(sessionActions.focused({ terminal, pin }));
  const onHover = useCallback((_row: string, id: string | null) => setHovered(id), []);
  return { row, column, hovered, onRow, onColumn, onFocus, onHover };
}

function Chart({ plan, chart }: { readonly plan: Plan; readonly chart: ChartData }) {
  const { sheets, board, blocks, nets, items, groups } = chart;
  const { row, column, hovered, ...focusing } = useFocus();
  const roomy = useAppSelector((state) => state.session.roomy);
  const settling = useSettle(plan);
  const { proposal, ask: assign } = settling;
  useAssignOfAddress(assign);
  const item = items.find((i) => i.key === row);
  const models = useMemo(() => rowModels(plan, sheets, groups, proposal?.plan), [plan, sheets, groups, proposal]);
  const marks = useChartMarks(chart, row, item);
  const { choices, free } = marks;
  const { onAct, onDrop, ...edits } = useChartEdits(plan, chart);
  const onKey = useChartKeys({ plan, chart, item, column, choices, edits, assign });
  // The card may follow a frame later: the marks are what one looks at while a wire moves.
  const card = useDeferredValue(
    useMemo(
      () => ({ plan, board, nets, item, column: hovered ?? column, freeCount: free }),
      [plan, board, nets, item, hovered, column, free],
    ),
  );
  return (
    <div className={styles.view}>
      <SignalChart
        label="Wires of the plan: one row per terminal, one column per pin"
        blocks={blocks}
        brackets={marks.brackets}
        groups={models}
        lines={marks.lines}
        clashes={marks.clashes}
        focus={{ row, column }}
        choices={choices}
        dim={marks.dim}
        headWidth={HEAD_WIDTH}
        columnWidth={roomy ? 24 : 14}
        rowHeight={roomy ? 28 : 19}
        corner={
          <Corner
            plan={plan}
            items={items}
            scope={chart.scope}
            open={openTerminals(items, nets).length}
            freeWords={item ? freeText(item, free, marks.here !== undefined) : ''}
            settling={settling}
          />
        }
        describe={(key, at) => describe(chart, choices, key, at)}
        {...focusing}
        onAct={onAct}
        onDrop={onDrop}
        onKey={onKey}
      />
      {proposal ? (
        <SettlePanel plan={plan} proposal={proposal} settling={settling} />
      ) : (
        <FocusCard {...card} onAct={onAct} onLock={edits.lock} onColour={edits.colour} />
      )}
    </div>
  );
}
