import { Button, NativeSelect, Progress, TextInput } from '@mantine/core';
import { useState } from 'react';
import { sayTerminal } from '@roof-chart/core/checks/say';
import { CALCULATIONS } from '@roof-chart/core/electrics/calculations';
import type { CalcResult, Calculation } from '@roof-chart/core/electrics/calculations/calculation';
import { planTerminals } from '@roof-chart/core/nets/terminals';
import { type Plan } from '@roof-chart/core/plan/plan';
import { formatSi } from '@roof-chart/core/quantity/format';
import { PIN_ROLES } from '@roof-chart/core/sheets/roles';
import { useWorkbench } from '../../app/workbench';
import { Stopped } from '../../review/reviewFeed';
import { calcEdits, ENTRIES } from './calcEntries';
import styles from './Resistors.module.css';

type Answer = { readonly of: string; readonly result: CalcResult } | { readonly of: string; readonly problem: string };

function shown(value: number | string | null, unit: string): string {
  if (value === null) return 'none';
  if (typeof value === 'string') return value;
  return unit === '1' ? String(Number(value.toPrecision(4))) : formatSi(value, unit);
}

function Outputs({ calculation, result }: { readonly calculation: Calculation; readonly result: CalcResult }) {
  return (
    <>
      <table className={styles.outputs}>
        <tbody>
          {calculation.outputs.map(({ name, unit, words }) => (
            <tr key={name}>
              <td className="num">{shown(result.outputs[name] ?? null, unit)}</td>
              <th scope="row">{words}</th>
            </tr>
          ))}
        </tbody>
      </table>
      <ul className={styles.working}>
        {result.working.map((step) => (
          <li key={step.formula}>
            {step.formula}: {step.values} <em>({step.source})</em>
          </li>
        ))}
      </ul>
    </>
  );
}

/** What was calculated, put at a terminal of the plan. */
function UseIt({ plan, id, result }: { readonly plan: Plan; readonly id: string; readonly result: CalcResult }) {
  const { sheets, edit } = useWorkbench();
  const [key, setKey] = useState('');
  const entry = ENTRIES[id];
  const edits = key === '' ? undefined : calcEdits(id, result, key);
  if (!entry || !calcEdits(id, result, 'a:b')) return null;
  const terminals = planTerminals(plan, sheets).filter((t) => PIN_ROLES[t.terminal.role] && t.wire);
  return (
    <div className={styles.row}>
      <NativeSelect
        size="xs"
        aria-label="Terminal to use it at"
        value={key}
        data={[{ value: '', label: 'Use it at…' }, ...terminals.map((t) => ({ value: t.key, label: sayTerminal(plan, sheets, t.key) }))]}
        onChange={(event) => setKey(event.currentTarget.value)}
      />
      <Button
        size="compact-sm"
        variant="outline"
        disabled={!edits}
        onClick={() => edits && edit(edits, `${entry} at ${sayTerminal(plan, sheets, key)}`)}
      >
        Put it into the plan
      </Button>
    </div>
  );
}

/** The calculations that need no plan, each with its working; what fits goes into the plan by a click. */
export function Calculators({ plan }: { readonly plan: Plan }) {
  const { feed } = useWorkbench();
  const [id, setId] = useState('led');
  const [given, setGiven] = useState<{ readonly [id: string]: { readonly [name: string]: string } }>({});
  const [answer, setAnswer] = useState<Answer | null>(null);
  const [running, setRunning] = useState(false);
  const calculation = CALCULATIONS.find((c) => c.id === id)!;
  // What the builder has, unless he says otherwise here.
  const drawer = plan.drawer.series !== 'own' && calculation.inputs.some((i) => i.name === 'series') ? plan.drawer.series : undefined;
  const values: { readonly [name: string]: string } = given[id] ?? {};
  const run = () => {
    setRunning(true);
    feed
      .search<CalcResult | string>((reviewer) => reviewer.calculate(id, { ...(drawer ? { series: drawer } : {}), ...values }))
      .then((result) => setAnswer(typeof result === 'string' ? { of: id, problem: result } : { of: id, result }))
      .catch((error: unknown) => {
        if (!(error instanceof Stopped)) throw error;
      })
      .finally(() => setRunning(false));
  };
  const here = answer?.of === id ? answer : null;
  return (
    <section className={styles.calc} aria-label="Calculators">
      <h3>Calculators</h3>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          run();
        }}
      >
        <NativeSelect
          size="xs"
          label="What to work out"
          value={id}
          data={CALCULATIONS.map((c) => ({ value: c.id, label: c.words.replace(/\.$/, '') }))}
          onChange={(event) => setId(event.currentTarget.value)}
        />
        <div className={styles.fields}>
          {calculation.inputs.map((input) => (
            <TextInput
              key={`${id} ${input.name}`}
              size="xs"
              label={`${input.words}${input.unit === '1' || input.unit === 'text' ? '' : `, in ${input.unit}`}`}
              placeholder={(input.name === 'series' ? drawer : undefined) ?? input.default ?? 'needed'}
              value={values[input.name] ?? ''}
              onChange={(event) => {
                const { [input.name]: _before, ...others } = values;
                const text = event.currentTarget.value;
                setGiven({ ...given, [id]: text.trim() === '' ? others : { ...others, [input.name]: text } });
              }}
            />
          ))}
        </div>
        <div className={styles.row}>
          <Button size="compact-sm" type="submit" disabled={running}>
            Work it out
          </Button>
          {running && (
            <>
              <Progress value={100} animated w={120} size="xs" aria-label="Working" />
              <Button size="compact-sm" variant="default" onClick={() => feed.stopSearch()}>
                Stop
              </Button>
            </>
          )}
        </div>
      </form>
      {here && 'problem' in here && (
        <p className={styles.problem} role="alert">
          {here.problem}
        </p>
      )}
      {here && 'result' in here && (
        <>
          <Outputs calculation={calculation} result={here.result} />
          <UseIt plan={plan} id={id} result={here.result} />
        </>
      )}
    </section>
  );
}
