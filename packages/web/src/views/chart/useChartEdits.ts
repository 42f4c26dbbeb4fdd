import { useCallback, useEffect, useRef } from 'react';
import { endFit, fitReason } from '@roof-chart/core/assign/fit/endFit';
import { wantsPin } from '@roof-chart/core/assign/fit/pinFit';
import { terminalText } from '@roof-chart/core/text/names';
import type { PlanTerminal } from '@roof-chart/core/nets/terminals';
import { type Plan, sameEnd, type WireColour, type WireEnd } from '@roof-chart/core/plan/plan';
import { conductor } from '@roof-chart/core/sheets/sheetIndex';
import { sessionActions } from '../../state/sessionSlice';
import { useAppDispatch } from '../../state/store';
import { useWorkbench } from '../../state/workbench';
import { useAnnounce } from '../../ui/announcer';
import { endOfColumn } from './columns';
import type { ChartData } from './useChart';

const placeOf = ({ placement, terminal }: PlanTerminal) => ({ placement: placement.id, terminal: terminal.id });

/** Wires that are put, moved, locked and coloured in the chart. The functions stay the same from edit to edit, so that rows need not be drawn
 *  anew because of them. */
export function useChartEdits(plan: Plan, { sheets, board, items }: ChartData) {
  const { edit } = useWorkbench();
  const announce = useAnnounce();
  const dispatch = useAppDispatch();
  const latest = useRef({ items, plan });
  useEffect(() => {
    latest.current = { items, plan };
  });

  const wireTo = useCallback(
    (target: PlanTerminal, end: WireEnd) => {
      const words = `${terminalText(latest.current.plan, sheets, target.key)}`;
      if (target.wire?.locked) return announce(`${words} is locked. Press L to unlock it.`);
      if (sameEnd(target.wire?.end, end)) edit([{ kind: 'unwire', ...placeOf(target) }]);
      else edit([{ kind: 'wire', ...placeOf(target), end }]);
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
  const lock = useCallback(
    (target: PlanTerminal) => {
      if (!target.wire) return;
      const locked = !target.wire.locked;
      edit([{ kind: 'lock', ...placeOf(target), locked }]);
    },
    [edit],
  );
  const colour = useCallback(
    (target: PlanTerminal, value: WireColour) => void edit([{ kind: 'colour', ...placeOf(target), colour: value }]),
    [edit],
  );

  return { wireTo, onAct, onDrop, lock, colour };
}

/** Prefers a pin for a terminal, or no longer. */
export function usePreference(plan: Plan, { board }: ChartData): (target: PlanTerminal, column: string) => void {
  const { edit } = useWorkbench();
  const announce = useAnnounce();
  return (target, column) => {
    const end = endOfColumn(board, column);
    if (end?.to !== 'pin' || !wantsPin(target.terminal)) return announce('Choose a signal row and a pin first.');
    const pin = conductor(board, end.pin);
    const next = plan.wishes[target.key]?.pin === pin ? null : { ...plan.wishes[target.key], pin };
    edit([{ kind: 'wish', ...placeOf(target), wish: next }]);
  };
}
