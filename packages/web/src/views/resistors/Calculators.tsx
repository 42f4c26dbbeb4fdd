import { findOrThrow } from '@roof-chart/core/collections/orThrow';
import { Button, NativeSelect, Progress, TextInput } from '@mantine/core';
import { useEffect, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import { CALCULATIONS } from '@roof-chart/core/electrics/calculations/calculations';
import type { Calculation } from '@roof-chart/core/electrics/calculations/calculation';
import type { Plan } from '@roof-chart/core/plan/plan';
import { CalcOutputs } from './CalcOutputs';
import styles from './Resistors.module.css';
import { useCalculation } from './useCalculation';

const capitalised = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);
/** What fits above a field: without its brackets and what follows a colon. @example shortLabel('tolerance (0.2: no band)') // 'Tolerance' */
const shortLabel = (words: string): string => capitalised(words.replace(/(\s\(|:).*$/, ''));
const hasUnit = ({ unit }: Calculation['inputs'][number]): boolean => unit !== '1' && unit !== 'text';

type Running = ReturnType<typeof useCalculation>;

interface InputsProps extends Pick<Running, 'values' | 'onHand' | 'enter'> {
  readonly calculation: Calculation;
}

/** The inputs, and in full what the one with the focus is. */
function Inputs({ calculation: { id, inputs }, values, onHand, enter }: InputsProps) {
  const [focused, setFocused] = useState<string | null>(null);
  const help = inputs.find(({ name }) => name === focused);
  return (
    <>
      <div className={styles.fields}>
        {inputs.map((input) => (
          <TextInput
            key={`${id} ${input.name}`}
            size="xs"
            label={shortLabel(input.words)}
            aria-describedby="calculation-help"
            rightSection={hasUnit(input) ? <span className={styles.unit}>{input.unit}</span> : undefined}
            rightSectionWidth={34}
            onFocus={() => setFocused(input.name)}
            onBlur={() => setFocused(null)}
            placeholder={(input.name === 'series' ? onHand : undefined) ?? input.default ?? 'required'}
            value={values[input.name] ?? ''}
            onChange={(event) => enter(input.name, event.currentTarget.value)}
          />
        ))}
      </div>
      <p id="calculation-help" className={styles.help}>
        {help
          ? `${capitalised(help.words)}${hasUnit(help) ? `, in ${help.unit}` : ''}.`
          : 'Values as 4.7k, 10m or 100n; an empty field has the value shown in it.'}
      </p>
    </>
  );
}

function RunRow({ progress, stop }: Pick<Running, 'progress' | 'stop'>) {
  return (
    <div className={styles.row}>
      <Button size="compact-sm" type="submit" disabled={progress !== null}>
        Calculate
      </Button>
      {progress !== null && (
        <>
          <Progress value={progress * 100} animated w={120} size="xs" aria-label="Calculating" />
          <span className="num">{Math.round(progress * 100)} %</span>
          <Button size="compact-sm" variant="default" onClick={stop}>
            Stop
          </Button>
        </>
      )}
    </div>
  );
}

const FIRST = findOrThrow(CALCULATIONS, ({ id }) => id === 'led');

/** The calculation of the address. */
function useChosen() {
  const [search, setSearch] = useSearchParams();
  const chosenId = search.get('calculation');
  const choose = (id: string) => setSearch({ calculation: id }, { replace: true });
  return { chosenId, calculation: CALCULATIONS.find(({ id }) => id === chosenId) ?? FIRST, choose };
}

/** The calculations that need no plan, each with its working. */
export function Calculators({ plan }: { readonly plan: Plan }) {
  const { chosenId, calculation, choose } = useChosen();
  const running = useCalculation(plan, calculation);
  const section = useRef<HTMLElement>(null);
  useEffect(() => {
    // From the command search the calculator may be below the list of resistors.
    if (chosenId !== null) section.current?.scrollIntoView({ block: 'nearest' });
  }, [chosenId]);
  return (
    <section ref={section} className={styles.calc} aria-label="Calculators">
      <h3>Calculators</h3>
      <div className={styles.sheet}>
        <form
          onSubmit={(event) => {
            event.preventDefault();
            running.run();
          }}
        >
          <NativeSelect
            size="xs"
            label="Calculation"
            value={calculation.id}
            data={CALCULATIONS.map((c) => ({ value: c.id, label: c.words.replace(/\.$/, '') }))}
            onChange={(event) => choose(event.currentTarget.value)}
          />
          <Inputs calculation={calculation} values={running.values} onHand={running.onHand} enter={running.enter} />
          <RunRow progress={running.progress} stop={running.stop} />
        </form>
        <CalcOutputs plan={plan} calculation={calculation} answer={running.answer} />
      </div>
    </section>
  );
}
