import { proxy } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import type { CalcResult, Calculation } from '@roof-chart/core/electrics/calculations/calculation';
import type { Plan } from '@roof-chart/core/plan/plan';
import { useWorkbench } from '../../state/workbench';
import { Stopped } from '../../workers/restartableWorker';

export type Answer = { readonly of: string; readonly result: CalcResult } | { readonly of: string; readonly problem: string };

/** What is entered, by the name of the input. */
export type Values = { readonly [name: string]: string };

/** The calculation whose search takes seconds. */
const SLOW = 'ladder';
/** Time from the last key to the result, in milliseconds. */
const LIVE_MS = 400;

/** The values on hand as the input `series`. */
const onHandText = ({ series, own }: Plan['valuesOnHand']): string => (series === 'own' ? (own ?? []).join(', ') : series);

/** Runs a calculation in the worker: when what is entered is complete, a moment after the last key; a search for resistors takes long, and
 *  begins by the button alone. */
export function useCalculation(plan: Plan, calculation: Calculation) {
  const { workers } = useWorkbench();
  const { id, inputs } = calculation;
  const [given, setGiven] = useState<{ readonly [id: string]: Values }>({});
  const [answer, setAnswer] = useState<Answer | null>(null);
  /** How much of what runs is done, from 0 to 1. */
  const [progress, setProgress] = useState<number | null>(null);
  // The values on hand by default.
  const onHand = inputs.some((i) => i.name === 'series' && i.default !== 'E6') ? onHandText(plan.valuesOnHand) : undefined;
  const values: Values = given[id] ?? {};
  const run = () => {
    setProgress(0);
    const onProgress = proxy((share: number) => setProgress((now) => (now === null ? null : share)));
    workers
      .search<CalcResult | string>((reviewer) => reviewer.calculate(id, { ...(onHand ? { series: onHand } : {}), ...values }, onProgress))
      .then((result) => setAnswer(typeof result === 'string' ? { of: id, problem: result } : { of: id, result }))
      .catch((error: unknown) => {
        if (!(error instanceof Stopped)) throw error;
      })
      .finally(() => setProgress(null));
  };
  const live = useRef(run);
  useEffect(() => {
    live.current = run;
  });
  const isComplete = inputs.every((input) => input.default !== undefined || values[input.name] !== undefined);
  const isLive = id !== SLOW && isComplete;
  useEffect(() => {
    if (!isLive) return undefined;
    const timer = setTimeout(() => live.current(), LIVE_MS);
    return () => clearTimeout(timer);
  }, [isLive, id, given]);
  const enter = (name: string, text: string) => {
    const { [name]: _before, ...others } = values;
    setGiven({ ...given, [id]: text.trim() === '' ? others : { ...others, [name]: text } });
  };
  return { values, onHand, enter, run, stop: () => workers.stopSearch(), progress, answer: answer?.of === id ? answer : null };
}
