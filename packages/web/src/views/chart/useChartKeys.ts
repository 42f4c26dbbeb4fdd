import type { KeyboardEvent } from 'react';
import type { PlanTerminal } from '@roof-chart/core/nets/terminals';
import type { Plan } from '@roof-chart/core/plan/plan';
import { sessionActions } from '../../state/sessionSlice';
import { useAppDispatch, useAppSelector } from '../../state/store';
import { useAnnounce } from '../../ui/announcer';
import { columnOfEnd, endOfColumn } from './columns';
import type { ChartData, useChartMarks } from './useChart';
import { type useChartEdits, usePreference } from './useChartEdits';

/** What the keys of the chart are about. */
interface KeyTarget {
  readonly plan: Plan;
  readonly chart: ChartData;
  /** The row with the focus, and its column. */
  readonly item: PlanTerminal | undefined;
  readonly column: string | null;
  readonly choices: ReturnType<typeof useChartMarks>['choices'];
  readonly edits: Pick<ReturnType<typeof useChartEdits>, 'wireTo' | 'lock'>;
  readonly assign: () => void;
}

/** Moves the wire of a row to the next column where it can go. */
function useNextLegal({ chart: { blocks, board }, choices, edits }: KeyTarget): (target: PlanTerminal, by: 1 | -1) => void {
  const announce = useAnnounce();
  const dispatch = useAppDispatch();
  return (target, by) => {
    if (!choices) return;
    const all = blocks.flatMap((b) => b.columns.map((c) => c.id));
    const order = all.filter((id) => choices.has(id) && choices.get(id) !== 'taken');
    const here = target.wire ? all.indexOf(columnOfEnd(target.wire.end) ?? '') : by > 0 ? -1 : all.length;
    const next = by > 0 ? order.find((id) => all.indexOf(id) > here) : order.findLast((id) => all.indexOf(id) < here);
    const end = next && endOfColumn(board, next);
    if (!next || !end) return announce('No further suitable pin in this direction.');
    dispatch(sessionActions.focused({ pin: next }));
    edits.wireTo(target, end);
  };
}

/** Goes to the finding after the chosen one. */
function useNextFinding({ findings, items }: ChartData): () => void {
  const announce = useAnnounce();
  const dispatch = useAppDispatch();
  const chosen = useAppSelector((state) => state.session.finding);
  return () => {
    const at = findings.findIndex(({ id }) => id === chosen);
    const found = findings[(at + 1) % findings.length];
    if (!found) return announce('No issues found.');
    const { terminals, placements, pins } = found.place;
    // What is about a part as a whole is shown at its first row; the cursor does not stay at the place of another finding.
    const terminal = terminals?.[0] ?? items.find((i) => i.placement.id === placements?.[0])?.key ?? null;
    dispatch(sessionActions.focused({ terminal, pin: pins?.[0] ?? null }));
    dispatch(sessionActions.findingChosen({ finding: found.id, scope: 'all' }));
  };
}

/** The keys of the chart. @returns whether a key was one of them */
export function useChartKeys(target: KeyTarget): (event: KeyboardEvent) => boolean {
  const { plan, chart, item, column, edits, assign } = target;
  const dispatch = useAppDispatch();
  const nextLegal = useNextLegal(target);
  const nextFinding = useNextFinding(chart);
  const prefer = usePreference(plan, chart);
  return (event) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return false;
    if (event.shiftKey && item && (event.key === 'ArrowRight' || event.key === 'ArrowLeft'))
      return (nextLegal(item, event.key === 'ArrowRight' ? 1 : -1), true);
    if (event.key === 'l' && item?.wire) return (edits.lock(item), true);
    if ((event.key === 'Delete' || event.key === 'Backspace') && item?.wire) return (edits.wireTo(item, item.wire.end), true);
    if (event.key === 'f') return (nextFinding(), true);
    if (event.key === 's') return (assign(), true);
    if (event.key === 'w' && item && column) return (prefer(item, column), true);
    if (event.key === 'Escape') return (dispatch(sessionActions.focused({ terminal: null, pin: null })), true);
    return false;
  };
}
