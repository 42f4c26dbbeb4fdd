import { Button } from '@mantine/core';
import { type KeyboardEvent, useCallback, useDeferredValue, useEffect, useMemo, useRef, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { endFit, fitReason } from '@roof-chart/core/assign/fit/endFit';
import { wantsPin } from '@roof-chart/core/assign/fit/pinFit';
import { terminalText } from '@roof-chart/core/text/names';
import { findBuses } from '@roof-chart/core/nets/buses';
import { findNets } from '@roof-chart/core/nets/nets';
import { openTerminals } from '@roof-chart/core/nets/openTerminals';
import { type PlanTerminal, planTerminals } from '@roof-chart/core/nets/terminals';
import { boardOf } from '@roof-chart/core/plan/edit';
import { type Plan, sameEnd, type WireColour, type WireEnd } from '@roof-chart/core/plan/plan';
import { conductor } from '@roof-chart/core/sheets/sheetIndex';
import { useAnnounce } from '../../ui/announcer';
import { selectPlanFindings } from '../../state/selectors';
import { useWorkbench } from '../../state/workbench';
import { SignalChart } from '../../ui/chart/SignalChart';
import { useStableReference, useStableSet } from '../../ui/chart/stableReference';
import { sessionActions } from '../../state/sessionSlice';
import { useAppDispatch, useAppSelector, useOpenPlan } from '../../state/store';
import styles from './Chart.module.css';
import { chartBrackets, chartChoices, chartGroups, chartLines, clashColumns } from './chartModel';
import { boardBlocks, columnOfEnd, endOfColumn } from './columns';
import { FocusCard } from './FocusCard';
import { SettlePanel } from './SettlePanel';
import { Corner } from './Corner';
import { rowModels } from './rows';
import { useSettle } from './useSettle';

const HEAD_WIDTH = 228;

function useChart(plan: Plan) {
  const { sheets } = useWorkbench();
  const scope = useAppSelector((state) => state.session.scope);
  const findings = useAppSelector(selectPlanFindings);
  const board = boardOf(plan, sheets)!;
  const blocks = useMemo(() => boardBlocks(board), [board]);
  const nets = useMemo(() => findNets(plan, sheets), [plan, sheets]);
  const buses = useMemo(() => findBuses(plan, sheets), [plan, sheets]);
  const items = useMemo(() => planTerminals(plan, sheets), [plan, sheets]);
  const groups = useMemo(
    () => chartGroups(plan, sheets, board, nets, scope, findings, blocks),
    [plan, sheets, board, nets, scope, findings, blocks],
  );
  return { sheets, scope, findings, board, blocks, nets, buses, items, groups };
}

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

function Chart({ plan, chart }: { readonly plan: Plan; readonly chart: ReturnType<typeof useChart> }) {
  const { sheets, scope, findings, board, blocks, nets, buses, items, groups } = chart;
  const { edit } = useWorkbench();
  const announce = useAnnounce();
  const dispatch = useAppDispatch();
  const row = useAppSelector((state) => state.session.terminal);
  const column = useAppSelector((state) => state.session.pin);
  const chosen = useAppSelector((state) => state.session.finding);
  const roomy = useAppSelector((state) => state.session.roomy);
  const [hovered, setHovered] = useState<string | null>(null);
  const item = items.find((i) => i.key === row);
  const settling = useSettle(plan);
  const { proposal, ask: assign } = settling;
  const [params, setParams] = useSearchParams();
  const isAsked = params.has('assign');
  useEffect(() => {
    if (!isAsked) return;
    setParams({}, { replace: true });
    assign();
  }, [isAsked, setParams, assign]);
  const models = useMemo(() => rowModels(plan, sheets, groups, proposal?.plan), [plan, sheets, groups, proposal]);
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

  const latest = useRef({ items, plan });
  useEffect(() => {
    latest.current = { items, plan };
  });

  const wireTo = useCallback(
    (target: PlanTerminal, end: WireEnd) => {
      const words = `${terminalText(latest.current.plan, sheets, target.key)}`;
      const place = { placement: target.placement.id, terminal: target.terminal.id };
      if (target.wire?.locked) return announce(`${words} is locked. Press L to unlock it.`);
      if (sameEnd(target.wire?.end, end)) edit([{ kind: 'unwire', ...place }]);
      else edit([{ kind: 'wire', ...place, end }]);
    },
    [announce, edit, sheets],
  );

  const onAct = useCallback(
    (key: string, at: string) => {
      dispatch(sessionActions.focused({ terminal: key, pin: at }));
      const target = latest.current.items.find((i) => i.key === key);
      const end = endOfColumn(board, at);
      if (!target || !end) return;
      const fit = endFit(board, target.part, target.terminal, end);
      if (fit.verdict === 'cannot' && !sameEnd(target.wire?.end, end))
        return announce(`Not possible: ${fitReason(fit, target.terminal, board.pins.get(at))}`);
      wireTo(target, end);
    },
    [announce, board, dispatch, wireTo],
  );
  const onDrop = useCallback(
    (key: string, at: string) => {
      const target = latest.current.items.find((i) => i.key === key);
      const end = endOfColumn(board, at);
      // A wire dropped at its old place stays; only a click removes it.
      if (target && end && !sameEnd(target.wire?.end, end)) onAct(key, at);
    },
    [board, onAct],
  );
  const onRow = useCallback((key: string) => void dispatch(sessionActions.focused({ terminal: key })), [dispatch]);
  const onColumn = useCallback((id: string) => void dispatch(sessionActions.focused({ pin: id })), [dispatch]);
  const onHover = useCallback((_row: string, id: string | null) => setHovered(id), []);

  const lock = useCallback(
    (target: PlanTerminal) => {
      if (!target.wire) return;
      const locked = !target.wire.locked;
      edit([{ kind: 'lock', placement: target.placement.id, terminal: target.terminal.id, locked }]);
    },
    [edit],
  );
  const colour = useCallback(
    (target: PlanTerminal, value: WireColour) =>
      void edit([{ kind: 'colour', placement: target.placement.id, terminal: target.terminal.id, colour: value }]),
    [edit],
  );

  const wishHere = (target: PlanTerminal, at: string) => {
    const end = endOfColumn(board, at);
    if (end?.to !== 'pin' || !wantsPin(target.terminal)) return announce('Choose a signal row and a pin first.');
    const pin = conductor(board, end.pin);
    const next = plan.wishes[target.key]?.pin === pin ? null : { ...plan.wishes[target.key], pin };
    const place = { placement: target.placement.id, terminal: target.terminal.id };
    edit([{ kind: 'wish', ...place, wish: next }]);
  };

  const nextLegal = (target: PlanTerminal, by: 1 | -1) => {
    if (!choices) return;
    const order = blocks.flatMap((b) => b.columns.map((c) => c.id)).filter((id) => choices.has(id) && choices.get(id) !== 'taken');
    const all = blocks.flatMap((b) => b.columns.map((c) => c.id));
    const here = target.wire ? all.indexOf(columnOfEnd(target.wire.end) ?? '') : by > 0 ? -1 : all.length;
    const next = by > 0 ? order.find((id) => all.indexOf(id) > here) : order.findLast((id) => all.indexOf(id) < here);
    const end = next && endOfColumn(board, next);
    if (!next || !end) return announce('No further suitable pin in this direction.');
    dispatch(sessionActions.focused({ pin: next }));
    wireTo(target, end);
  };

  const nextFinding = () => {
    const at = findings.findIndex(({ id }) => id === chosen);
    const found = findings[(at + 1) % findings.length];
    if (!found) return announce('No issues found.');
    const { terminals, placements, pins } = found.place;
    // What is about a part as a whole is shown at its first row; the cursor does not stay at the place of another finding.
    const terminal = terminals?.[0] ?? items.find((i) => i.placement.id === placements?.[0])?.key ?? null;
    dispatch(sessionActions.focused({ terminal, pin: pins?.[0] ?? null }));
    dispatch(sessionActions.findingChosen({ finding: found.id, scope: 'all' }));
  };

  const onKey = (event: KeyboardEvent): boolean => {
    if (event.ctrlKey || event.metaKey || event.altKey) return false;
    if (event.shiftKey && item && (event.key === 'ArrowRight' || event.key === 'ArrowLeft'))
      return (nextLegal(item, event.key === 'ArrowRight' ? 1 : -1), true);
    if (event.key === 'l' && item?.wire) return (lock(item), true);
    if ((event.key === 'Delete' || event.key === 'Backspace') && item?.wire) return (wireTo(item, item.wire.end), true);
    if (event.key === 'f') return (nextFinding(), true);
    if (event.key === 's') return (settling.ask(), true);
    if (event.key === 'w' && item && column) return (wishHere(item, column), true);
    if (event.key === 'Escape') return (dispatch(sessionActions.focused({ terminal: null, pin: null })), true);
    return false;
  };

  const describe = (key: string, at: string): string => {
    const target = items.find((i) => i.key === key);
    const end = endOfColumn(board, at);
    const name = blocks.flatMap((b) => b.columns).find((c) => c.id === at)?.title ?? at;
    if (!target || !end) return name;
    if (sameEnd(target.wire?.end, end)) return `${name}: connected here${target.wire?.locked ? ', locked' : ''}`;
    const fit = endFit(board, target.part, target.terminal, end);
    if (fit.verdict === 'cannot') return `${name}: not possible. ${fitReason(fit, target.terminal, board.pins.get(at))}`;
    const choice = choices?.get(at);
    return `${name}: ${choice === 'taken' ? 'error, in use' : choice === 'costs' ? 'possible, with a caveat' : 'possible'}`;
  };

  // The card may follow a frame later: the marks are what one looks at while a wire moves.
  const card = useDeferredValue(
    useMemo(
      () => ({ plan, board, nets, item, column: hovered ?? column, freeCount: free }),
      [plan, board, nets, item, hovered, column, free],
    ),
  );
  const freeWords = item
    ? `${item.placement.name} ${item.terminal.label}: ${free === 0 ? 'no' : free} ${here ? 'other ' : ''}free ${wantsPin(item.terminal) ? 'pin' : 'place'}${free === 1 ? '' : 's'}`
    : '';
  return (
    <div className={styles.view}>
      <SignalChart
        label="Wires of the plan: one row per terminal, one column per pin"
        blocks={blocks}
        brackets={brackets}
        groups={models}
        lines={lines}
        clashes={clashes}
        focus={{ row, column }}
        choices={choices}
        dim={dim}
        headWidth={HEAD_WIDTH}
        columnWidth={roomy ? 24 : 14}
        rowHeight={roomy ? 28 : 19}
        corner={
          <Corner
            plan={plan}
            items={items}
            scope={scope}
            open={openTerminals(items, nets).length}
            freeWords={freeWords}
            settling={settling}
          />
        }
        describe={describe}
        onFocus={(terminal, pin) => dispatch(sessionActions.focused({ terminal, pin }))}
        onRow={onRow}
        onColumn={onColumn}
        onAct={onAct}
        onDrop={onDrop}
        onHover={onHover}
        onKey={onKey}
      />
      {proposal ? (
        <SettlePanel plan={plan} proposal={proposal} settling={settling} />
      ) : (
        <FocusCard {...card} onAct={onAct} onLock={lock} onColour={colour} />
      )}
    </div>
  );
}
