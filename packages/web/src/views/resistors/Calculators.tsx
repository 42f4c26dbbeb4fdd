import { Button, NativeSelect, Progress, TextInput } from '@mantine/core';
import { proxy } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import { terminalText } from '@roof-chart/core/text/names';
import { TRANSISTOR_WORDS } from '@roof-chart/core/checks/fixes/transistors';
import { CALCULATIONS } from '@roof-chart/core/electrics/calculations/calculations';
import { type CalcResult, type Calculation, outputText } from '@roof-chart/core/electrics/calculations/calculation';
import { planTerminals } from '@roof-chart/core/nets/terminals';
import type { Driver, Plan } from '@roof-chart/core/plan/plan';
import { PIN_ROLES } from '@roof-chart/core/sheets/roles';
import { partSheet } from '@roof-chart/core/sheets/sheetIndex';
import { useWorkbench } from '../../state/workbench';
import { Stopped } from '../../workers/workerSeat';
import { calcEdits, ENTRIES, ladderEdits, TRANSISTOR_KINDS } from './calcEntries';
import { SpanPicture } from './SpanPicture';
import styles from './Resistors.module.css';

type Answer = { readonly of: string; readonly result: CalcResult } | { readonly of: string; readonly problem: string };

function Outputs({ calculation, result }: { readonly calculation: Calculation; readonly result: CalcResult }) {
  return (
    <>
      <table className={styles.outputs}>
        <tbody>
          {calculation.outputs.map(({ name, unit, words }) => (
            <tr key={name}>
              <td className="num">{outputText(result.outputs[name] ?? null, unit)}</td>
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

/** The calculation whose search takes seconds. */
const SLOW = 'ladder';
/** Time from the last key to the result, in milliseconds. */
const LIVE_MS = 400;

const capitalised = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);
/** What fits above a field: without its brackets and what follows a colon. @example shortLabel('tolerance (0.2: no band)') // 'Tolerance' */
const shortLabel = (words: string): string => capitalised(words.replace(/(\s\(|:).*$/, ''));
const hasUnit = ({ unit }: Calculation['inputs'][number]): boolean => unit !== '1' && unit !== 'text';

/** The values on hand as the input `series`. */
const drawerText = ({ series, own }: Plan['drawer']): string => (series === 'own' ? (own ?? []).join(', ') : series);

/** Resistors of keys, put into the plan. */
function UseLadder({ plan, result }: { readonly plan: Plan; readonly result: CalcResult }) {
  const { sheets, edit } = useWorkbench();
  const ladders = plan.placements.filter((p) => partSheet(sheets, p.sheet)?.sheet.keys?.as === 'ladder');
  return (
    <div className={styles.row}>
      {ladders.map(({ id, name }) => {
        const edits = ladderEdits(result, id);
        return (
          edits && (
            <Button key={id} size="compact-sm" variant="outline" onClick={() => edit(edits, `resistors of ${name}`)}>
              Use them in {name}
            </Button>
          )
        );
      })}
    </div>
  );
}

/** What was calculated, put at a terminal of the plan. */
function UseIt({ plan, id, result }: { readonly plan: Plan; readonly id: string; readonly result: CalcResult }) {
  const { sheets, edit } = useWorkbench();
  const [key, setKey] = useState('');
  const [kind, setKind] = useState<Driver['kind']>(id === 'transistor-gate' ? 'nmos' : 'npn');
  const entry = ENTRIES[id];
  const edits = key === '' ? undefined : calcEdits(id, result, key, kind);
  if (!entry || !calcEdits(id, result, 'a:b', kind)) return null;
  const kinds = TRANSISTOR_KINDS[id] ?? [];
  const terminals = planTerminals(plan, sheets).filter((t) => PIN_ROLES[t.terminal.role] && t.wire);
  return (
    <div className={styles.row}>
      <NativeSelect
        size="xs"
        aria-label="Terminal for this value"
        value={key}
        data={[{ value: '', label: 'Use at…' }, ...terminals.map((t) => ({ value: t.key, label: terminalText(plan, sheets, t.key) }))]}
        onChange={(event) => setKey(event.currentTarget.value)}
      />
      {kinds.length > 0 && (
        <NativeSelect
          size="xs"
          aria-label="Kind of transistor"
          value={kind}
          data={kinds.map((value) => ({ value, label: TRANSISTOR_WORDS[value] }))}
          onChange={(event) => setKind(event.currentTarget.value as Driver['kind'])}
        />
      )}
      <Button
        size="compact-sm"
        variant="outline"
        disabled={!edits}
        onClick={() => edits && edit(edits, `${entry} at ${terminalText(plan, sheets, key)}`)}
      >
        Add to the plan
      </Button>
    </div>
  );
}

/** The calculations that need no plan, each with its working; what fits goes into the plan by a click. */
export function Calculators({ plan }: { readonly plan: Plan }) {
  const { workers } = useWorkbench();
  const [search, setSearch] = useSearchParams();
  const asked = search.get('calculation');
  const id = CALCULATIONS.some((c) => c.id === asked) ? asked! : 'led';
  const setId = (next: string) => setSearch({ calculation: next }, { replace: true });
  const section = useRef<HTMLElement>(null);
  useEffect(() => {
    // From the command search the calculator may be below the list of resistors.
    if (asked !== null) section.current?.scrollIntoView({ block: 'nearest' });
  }, [asked]);
  const [given, setGiven] = useState<{ readonly [id: string]: { readonly [name: string]: string } }>({});
  const [answer, setAnswer] = useState<Answer | null>(null);
  /** How much of what runs is done, from 0 to 1. */
  const [running, setRunning] = useState<number | null>(null);
  const calculation = CALCULATIONS.find((c) => c.id === id)!;
  // The values on hand by default.
  const drawer = calculation.inputs.some((i) => i.name === 'series' && i.default !== 'E6') ? drawerText(plan.drawer) : undefined;
  const values: { readonly [name: string]: string } = given[id] ?? {};
  const [focused, setFocused] = useState<string | null>(null);
  const run = () => {
    setRunning(0);
    workers
      .search<CalcResult | string>((reviewer) =>
        reviewer.calculate(
          id,
          { ...(drawer ? { series: drawer } : {}), ...values },
          proxy((share: number) => setRunning((now) => (now === null ? null : share))),
        ),
      )
      .then((result) => setAnswer(typeof result === 'string' ? { of: id, problem: result } : { of: id, result }))
      .catch((error: unknown) => {
        if (!(error instanceof Stopped)) throw error;
      })
      .finally(() => setRunning(null));
  };
  const live = useRef(run);
  useEffect(() => {
    live.current = run;
  });
  // The result follows what is typed; a search for resistors takes long, and begins by the button alone.
  const isComplete = calculation.inputs.every((input) => input.default !== undefined || values[input.name] !== undefined);
  const isLive = id !== SLOW && isComplete && given[id] !== undefined;
  useEffect(() => {
    if (!isLive) return undefined;
    const timer = setTimeout(() => live.current(), LIVE_MS);
    return () => clearTimeout(timer);
  }, [isLive, id, given]);
  const here = answer?.of === id ? answer : null;
  const help = calculation.inputs.find(({ name }) => name === focused);
  return (
    <section ref={section} className={styles.calc} aria-label="Calculators">
      <h3>Calculators</h3>
      <div className={styles.sheet}>
        <form
          onSubmit={(event) => {
            event.preventDefault();
            run();
          }}
        >
          <NativeSelect
            size="xs"
            label="Calculation"
            value={id}
            data={CALCULATIONS.map((c) => ({ value: c.id, label: c.words.replace(/\.$/, '') }))}
            onChange={(event) => setId(event.currentTarget.value)}
          />
          <div className={styles.fields}>
            {calculation.inputs.map((input) => (
              <TextInput
                key={`${id} ${input.name}`}
                size="xs"
                label={shortLabel(input.words)}
                aria-describedby="calculation-help"
                rightSection={hasUnit(input) ? <span className={styles.unit}>{input.unit}</span> : undefined}
                rightSectionWidth={34}
                onFocus={() => setFocused(input.name)}
                onBlur={() => setFocused(null)}
                placeholder={(input.name === 'series' ? drawer : undefined) ?? input.default ?? 'required'}
                value={values[input.name] ?? ''}
                onChange={(event) => {
                  const { [input.name]: _before, ...others } = values;
                  const text = event.currentTarget.value;
                  setGiven({ ...given, [id]: text.trim() === '' ? others : { ...others, [input.name]: text } });
                }}
              />
            ))}
          </div>
          <p id="calculation-help" className={styles.help}>
            {help
              ? `${capitalised(help.words)}${hasUnit(help) ? `, in ${help.unit}` : ''}.`
              : 'Values as 4.7k, 10m or 100n; an empty field has the value shown in it.'}
          </p>
          <div className={styles.row}>
            <Button size="compact-sm" type="submit" disabled={running !== null}>
              Calculate
            </Button>
            {running !== null && (
              <>
                <Progress value={running * 100} animated w={120} size="xs" aria-label="Calculating" />
                <span className="num">{Math.round(running * 100)} %</span>
                <Button size="compact-sm" variant="default" onClick={() => workers.stopSearch()}>
                  Stop
                </Button>
              </>
            )}
          </div>
        </form>
        <div className={styles.result} aria-live="polite">
          {!here && <p className="quiet">The result follows what you enter.</p>}
          {here && 'problem' in here && (
            <p className={styles.problem} role="alert">
              {here.problem}
            </p>
          )}
          {here && 'result' in here && (
            <>
              <Outputs calculation={calculation} result={here.result} />
              {here.result.spans && <SpanPicture spans={here.result.spans} label={calculation.words} />}
              {id === 'ladder' ? (
                <UseLadder plan={plan} result={here.result} />
              ) : (
                <UseIt key={id} plan={plan} id={id} result={here.result} />
              )}
            </>
          )}
        </div>
      </div>
    </section>
  );
}
