import { Button, NativeSelect, NumberInput } from '@mantine/core';
import { type PointerEvent, useRef, useState } from 'react';
import type { Bus } from '@roof-chart/core/nets/buses';
import type { Plan } from '@roof-chart/core/plan/plan';
import { formatSi } from '@roof-chart/core/quantity/format';
import { typical } from '@roof-chart/core/quantity/range';
import { nearest, valuesOf } from '@roof-chart/core/quantity/series';
import type { I2cSheet } from '@roof-chart/core/review/i2cSheet';
import { useWorkbench } from '../../app/workbench';
import { HangScale, PAD, ROOF, ROW, type ScaleRow } from '../../hang/HangScale';
import { Ring } from '../../hang/marks';
import type { Scale } from '../../hang/placing';
import styles from './Buses.module.css';
import { pullUpAdvice, restWords, VERDICT_WORDS } from './busWords';
import { nameOf } from './memberName';
import { Rise } from './Rise';
import { changed, commit } from './settings';

const OHMS: Scale = {
  min: 300,
  max: 100_000,
  log: true,
  ticks: [300, 500, 1000, 2000, 3000, 5000, 10_000, 20_000, 30_000, 50_000, 100_000].map((at) => ({ at, label: formatSi(at, '').trim() })),
};
const STEPS = valuesOf('E12', OHMS.min, OHMS.max);
/** Where stepping begins while nothing is added. */
const USUAL = 4700;
const BELOW_USUAL = USUAL - 1;
const CLOCKS = [100e3, 400e3, 1e6];

/** Every pull-up of a bus on an axis of ohms, the window in which they must lie, and one of the builder's to be dragged. */
export function PullUps({ plan, bus, sheet }: { readonly plan: Plan; readonly bus: Bus; readonly sheet: I2cSheet }) {
  const { edit } = useWorkbench();
  const { input, pullUps, capacitance } = sheet;
  const controller = bus.controller;
  const settings = controller === undefined ? undefined : plan.busSettings[controller];
  const [dragged, setDragged] = useState<number | null>(null);
  const set = (change: Parameters<typeof changed>[1], words: string) => {
    if (controller !== undefined) edit([{ kind: 'bus-settings', segment: controller, settings: changed(settings, change) }], words);
  };
  const added = settings?.addedOhms;
  const add = (ohms: number | undefined) =>
    set({ addedOhms: ohms }, ohms === undefined ? 'take the added pull-ups away' : `add pull-ups of ${formatSi(ohms, 'Ω')}`);
  const rows: ScaleRow[] = [...input.pullUps.filter((p) => p.id !== 'added'), ...(input.internal ? [input.internal] : [])].map(
    (pull, at) => ({
      id: `${pull.id}-${at}`,
      head: nameOf(plan, pull.id),
      value: formatSi(typical(pull.ohms), 'Ω'),
      marks: [{ at: typical(pull.ohms), kind: 'disc', from: pull.ohms.min, to: pull.ohms.max }],
    }),
  );
  const shown = dragged ?? added;
  const step = (by: 1 | -1) => {
    const next = by > 0 ? STEPS.find((ohms) => ohms > (added ?? BELOW_USUAL)) : STEPS.findLast((ohms) => ohms < (added ?? USUAL + 1));
    if (next !== undefined) add(next);
  };
  const mine: ScaleRow = {
    id: 'added',
    head: 'Added by you',
    value: shown === undefined ? 'none' : formatSi(shown, 'Ω'),
    marks: shown === undefined ? [] : [{ at: shown, kind: 'disc' }],
    ...(controller === undefined ? {} : { step, stepLabel: 'Pull-up added on each line' }),
  };
  const good = pullUps.verdict === 'good';
  const rest = restWords(plan, sheet);
  const all = pullUps.ohms;
  return (
    <section className={styles.section}>
      <h2>
        Pull-ups{' '}
        <span className={styles.aside}>
          {formatSi(input.vdd.max, 'V')} at most, {formatSi(capacitance.farads, 'F')}
          {capacitance.measured === undefined ? ' estimated' : ' measured'}, window for {formatSi(input.hz, 'Hz')}
        </span>
      </h2>
      <HangScale
        label="Pull-ups of the bus"
        scale={OHMS}
        rows={[...rows, mine]}
        windows={
          pullUps.windowOpen
            ? [
                {
                  from: pullUps.leastOhms,
                  to: pullUps.mostOhms,
                  tone: 'good',
                  fromLabel: `${formatSi(pullUps.leastOhms, 'Ω')} least`,
                  toLabel: `${formatSi(pullUps.mostOhms, 'Ω')} most`,
                },
              ]
            : []
        }
        {...(all
          ? {
              total: {
                at: pullUps.verdict === 'too-weak' ? all.max : all.min,
                words: `together ${formatSi(pullUps.verdict === 'too-weak' ? all.max : all.min, 'Ω')}, ${VERDICT_WORDS[pullUps.verdict]}`,
                tone: good ? ('good' as const) : ('risky' as const),
              },
            }
          : {})}
      >
        {(x, value) =>
          controller !== undefined && (
            <Handle
              x={x(shown ?? OHMS.max)}
              y={ROOF + rows.length * ROW + ROW / 2}
              words={shown === undefined ? 'drag in a resistor' : ''}
              onDrag={(at) => setDragged(nearest('E12', value(at)))}
              onDrop={() => {
                if (dragged !== null && dragged !== added) add(dragged);
                setDragged(null);
              }}
            />
          )
        }
      </HangScale>
      <div className={styles.advice}>
        <div>
          <p className={good ? styles.good : styles.risky}>{pullUpAdvice(plan, sheet)}</p>
          {rest && <p className={styles.bad}>{rest}</p>}
        </div>
        {sheet.add !== undefined && controller !== undefined && (
          <Button size="compact-xs" variant="outline" onClick={() => add(sheet.add)}>
            Add {formatSi(sheet.add, 'Ω')} on each line
          </Button>
        )}
        {added !== undefined && (
          <Button size="compact-xs" variant="default" onClick={() => add(undefined)}>
            Take {formatSi(added, 'Ω')} away
          </Button>
        )}
      </div>
      <div className={styles.beside}>
        <Rise sheet={sheet} />
        <div>
          <div className={styles.fields}>
            <NumberInput
              size="xs"
              label="Wire of a line, cm"
              min={0}
              max={10_000}
              value={settings?.wireCm ?? ''}
              placeholder={`${capacitance.wire} taken`}
              onBlur={(event) => commit(event.currentTarget.value, settings?.wireCm, (wireCm) => set({ wireCm }, 'set the length of wire'))}
            />
            <NumberInput
              size="xs"
              label="Measured capacitance, pF"
              min={1}
              max={100_000}
              value={settings?.picofarads ?? ''}
              placeholder={`${Math.round(capacitance.farads * 1e12)} taken`}
              onBlur={(event) =>
                commit(event.currentTarget.value, settings?.picofarads, (picofarads) => set({ picofarads }, 'set the measured capacitance'))
              }
            />
            <NativeSelect
              size="xs"
              label="Clock"
              value={String(settings?.hz ?? '')}
              data={[
                { value: '', label: 'as fast as all allow' },
                ...CLOCKS.map((hz) => ({ value: String(hz), label: formatSi(hz, 'Hz') })),
              ]}
              onChange={(event) => {
                const hz = event.currentTarget.value === '' ? undefined : Number(event.currentTarget.value);
                set({ hz }, hz === undefined ? 'leave the clock to the parts' : `clock the bus at ${formatSi(hz, 'Hz')}`);
              }}
            />
          </div>
          <details className={styles.working}>
            <summary>Why</summary>
            <ul>
              {pullUps.working.map((one) => (
                <li key={one.formula}>
                  <span className="mono">{one.formula}</span>: {one.values} <span className="quiet">({one.source})</span>
                </li>
              ))}
            </ul>
          </details>
        </div>
      </div>
    </section>
  );
}

/** The ring that is dragged along the axis; by keyboard the row beside it is a slider. */
function Handle({
  x,
  y,
  words,
  onDrag,
  onDrop,
}: {
  readonly x: number;
  readonly y: number;
  readonly words: string;
  readonly onDrag: (x: number) => void;
  readonly onDrop: () => void;
}) {
  const place = useRef<SVGGElement>(null);
  const at = (event: PointerEvent) => {
    const svg = place.current!.ownerSVGElement!;
    return event.clientX - svg.getBoundingClientRect().left - PAD;
  };
  return (
    <g
      ref={place}
      className={styles.handle}
      aria-hidden
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        onDrag(at(event));
      }}
      onPointerMove={(event) => event.currentTarget.hasPointerCapture(event.pointerId) && onDrag(at(event))}
      onPointerUp={onDrop}
    >
      <circle cx={x} cy={y} r={11} fill="transparent" />
      {words && (
        <text className={styles.dragIn} x={x - 10} y={y + 4} textAnchor="end">
          {words}
        </text>
      )}
      <Ring x={x} y={y} />
    </g>
  );
}
