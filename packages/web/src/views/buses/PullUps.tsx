import { Button, NativeSelect, NumberInput } from '@mantine/core';
import { type PointerEvent, useMemo, useRef, useState } from 'react';
import { pulledTo } from '@roof-chart/core/electrics/formulas/busPullUps';
import type { SegmentReport } from '@roof-chart/core/electrics/reports/segmentReport';
import type { Plan } from '@roof-chart/core/plan/plan';
import { formatSi } from '@roof-chart/core/quantity/format';
import { typical } from '@roof-chart/core/quantity/range';
import { drawerValues, nearestOf } from '@roof-chart/core/quantity/series';
import { partSheet } from '@roof-chart/core/sheets/sheetIndex';
import { useWorkbench } from '../../state/workbench';
import { ScaleChart, PAD, HEADER_HEIGHT, type ScaleRow } from '../../ui/chart/ScaleChart';
import { Ring } from '../../ui/chart/marks';
import { ROW_HEIGHT, type Scale } from '../../ui/chart/placing';
import styles from './Buses.module.css';
import { pullUpAdvice, idleLevelText, VERDICT_TEXT } from '@roof-chart/core/text/views/busText';
import { DrawerFields } from '../../ui/DrawerFields';
import { nameOf } from '@roof-chart/core/text/memberName';
import { Rise } from './Rise';
import { changed, commit } from '../../ui/busSettings';

const OHMS: Scale = {
  min: 300,
  max: 100_000,
  log: true,
  ticks: [300, 500, 1000, 2000, 3000, 5000, 10_000, 20_000, 30_000, 50_000, 100_000].map((at) => ({ at, label: formatSi(at, '').trim() })),
};
/** Where stepping begins while nothing is added. */
const USUAL = 4700;
const BELOW_USUAL = USUAL - 1;
const CLOCKS = [100e3, 400e3, 1e6];

/** The name of a bus segment. */
function stretchWords({ segment: { via } }: SegmentReport): string {
  if (!via) return 'Pull-ups';
  return `Pull-ups behind ${via.placement.name}${via.channel === undefined ? '' : `, channel ${via.channel}`}`;
}

/** The pull-ups of a bus segment on an axis of ohms with the allowed window, and an added one that can be dragged.
 *  @param connected whether the bus has a controller, so that it can be calculated */
export function PullUps({ plan, sheet, connected }: { readonly plan: Plan; readonly sheet: SegmentReport; readonly connected: boolean }) {
  const { edit, sheets } = useWorkbench();
  const { input, pullUps, capacitance, segment } = sheet;
  const controller = connected ? segment.id : undefined;
  const settings = controller === undefined ? undefined : plan.busSettings[controller];
  const steps = useMemo(() => drawerValues(plan.drawer, OHMS.min, OHMS.max), [plan.drawer]);
  const [dragged, setDragged] = useState<number | null>(null);
  const set = (change: Parameters<typeof changed>[1]) => {
    if (controller !== undefined) edit([{ kind: 'bus-settings', segment: controller, settings: changed(settings, change) }]);
  };
  const added = settings?.addedOhms;
  const add = (ohms: number | undefined) => set({ addedOhms: ohms });
  const cut = segment.members.filter((m) => m.pullUpsCut);
  const canCut = (id: string) =>
    (partSheet(sheets, plan.placements.find((p) => p.id === id)?.sheet ?? NOBODY)?.sheet.module.pullUps?.length ?? 0) > 0;
  const toCut = (id: string, on: boolean) => edit([{ kind: 'cut-pull-ups', placement: id, cut: on }]);
  const rows: ScaleRow[] = [...input.pullUps.filter((p) => p.id !== 'added'), ...(input.internal ? [input.internal] : [])].map(
    (pull, at) => ({
      id: `${pull.id}-${at}`,
      head: canCut(pull.id) ? (
        <Cuttable name={nameOf(plan, pull.id)} cut={false} onChange={() => toCut(pull.id, true)} />
      ) : (
        nameOf(plan, pull.id)
      ),
      value: formatSi(typical(pull.ohms), 'Ω'),
      marks: [{ at: typical(pull.ohms), kind: 'disc', from: pull.ohms.min, to: pull.ohms.max }],
    }),
  );
  if (input.internalOff) rows.push({ id: 'internal-off', head: nameOf(plan, 'internal'), value: 'must be off', marks: [] });
  rows.push(
    ...cut.map((member): ScaleRow => ({
      id: `cut-${member.id}`,
      head: <Cuttable name={member.name} cut onChange={() => toCut(member.id, false)} />,
      value: 'removed',
      marks: [],
    })),
  );
  const shown = dragged ?? added;
  const step = (by: 1 | -1) => {
    const next = by > 0 ? steps.find((ohms) => ohms > (added ?? BELOW_USUAL)) : steps.findLast((ohms) => ohms < (added ?? USUAL + 1));
    if (next !== undefined) add(next);
  };
  const mine: ScaleRow = {
    id: 'added',
    head: 'Added',
    value: shown === undefined ? 'none' : formatSi(shown, 'Ω'),
    marks: shown === undefined ? [] : [{ at: shown, kind: 'disc' }],
    ...(controller === undefined
      ? {}
      : { step, stepLabel: segment.via ? `${stretchWords(sheet)}: added to each line` : 'Pull-up added to each line' }),
  };
  const good = pullUps.verdict === 'good';
  const rest = idleLevelText(plan, sheet);
  const all = pullUps.ohms;
  return (
    <section className={styles.section}>
      <h2>
        {stretchWords(sheet)}{' '}
        <span className={styles.aside}>
          {formatSi(pulledTo(input).max, 'V')} maximum, {formatSi(capacitance.farads, 'F')}
          {capacitance.measured === undefined ? ' estimated' : ' measured'}, window for {formatSi(input.hz, 'Hz')}
        </span>
      </h2>
      <ScaleChart
        label={segment.via ? stretchWords(sheet) : 'Pull-ups of the bus'}
        scale={OHMS}
        rows={[...rows, mine]}
        windows={
          pullUps.windowOpen
            ? [
                {
                  from: pullUps.leastOhms,
                  to: pullUps.mostOhms,
                  tone: 'good',
                  fromLabel: `min ${formatSi(pullUps.leastOhms, 'Ω')}`,
                  ...(pullUps.mostOhms < OHMS.max ? { toLabel: `max ${formatSi(pullUps.mostOhms, 'Ω')}` } : {}),
                },
              ]
            : []
        }
        {...(all
          ? {
              total: {
                at: pullUps.verdict === 'too-weak' ? all.max : all.min,
                words: `effective ${formatSi(pullUps.verdict === 'too-weak' ? all.max : all.min, 'Ω')}: ${VERDICT_TEXT[pullUps.verdict]}`,
                tone: good ? ('good' as const) : ('risky' as const),
              },
            }
          : {})}
      >
        {(x, value) =>
          controller !== undefined && (
            <Handle
              x={x(shown ?? OHMS.max)}
              y={HEADER_HEIGHT + rows.length * ROW_HEIGHT + ROW_HEIGHT / 2}
              words={shown === undefined ? 'drag to add a resistor' : ''}
              onDrag={(at) => setDragged(nearestOf(steps, value(at)) ?? null)}
              onDrop={() => {
                if (dragged !== null && dragged !== added) add(dragged);
                setDragged(null);
              }}
            />
          )
        }
      </ScaleChart>
      <div className={styles.advice}>
        <div>
          <p className={good ? styles.good : styles.risky}>{pullUpAdvice(plan, sheet)}</p>
          {rest && <p className={styles.bad}>{rest}</p>}
        </div>
        {sheet.add !== undefined && controller !== undefined && (
          <Button size="compact-xs" variant="outline" onClick={() => add(sheet.add)}>
            Add {formatSi(sheet.add, 'Ω')} to each line
          </Button>
        )}
        {sheet.cut.length > 0 && (
          <Button
            size="compact-xs"
            variant="outline"
            onClick={() => edit(sheet.cut.map((placement) => ({ kind: 'cut-pull-ups', placement, cut: true })))}
          >
            Remove {sheet.cut.length === 1 ? 'its pull-ups' : `the pull-ups of ${sheet.cut.length} parts`}
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
              label="Wire length per line, cm"
              min={0}
              max={10_000}
              value={settings?.wireCm ?? ''}
              placeholder={`${capacitance.wire} assumed`}
              onBlur={(event) => commit(event.currentTarget.value, settings?.wireCm, (wireCm) => set({ wireCm }))}
            />
            <NumberInput
              size="xs"
              label="Measured capacitance, pF"
              min={1}
              max={100_000}
              value={settings?.picofarads ?? ''}
              placeholder={`${Math.round(capacitance.farads * 1e12)} assumed`}
              onBlur={(event) => commit(event.currentTarget.value, settings?.picofarads, (picofarads) => set({ picofarads }))}
            />
            {!segment.via && (
              <NativeSelect
                size="xs"
                label="Clock"
                value={String(settings?.hz ?? '')}
                data={[
                  { value: '', label: 'maximum of all devices' },
                  ...CLOCKS.map((hz) => ({ value: String(hz), label: formatSi(hz, 'Hz') })),
                ]}
                onChange={(event) => {
                  const hz = event.currentTarget.value === '' ? undefined : Number(event.currentTarget.value);
                  set({ hz });
                }}
              />
            )}
            {!segment.via && <DrawerFields drawer={plan.drawer} />}
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

const NOBODY = { id: '', version: 0 };

/** A part whose pull-ups can be cut, as the head of its row. */
function Cuttable({ name, cut, onChange }: { readonly name: string; readonly cut: boolean; readonly onChange: () => void }) {
  return (
    <span className={styles.cuttable}>
      <span className={cut ? styles.cutName : undefined}>{name}</span>
      <button
        type="button"
        className={styles.cutButton}
        aria-label={`${cut ? 'restore' : 'remove'} the pull-ups of ${name}`}
        onClick={onChange}
      >
        {cut ? 'restore' : 'remove'}
      </button>
    </span>
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
