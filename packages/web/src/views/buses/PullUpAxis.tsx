import { useMemo, useState } from 'react';
import type { PullUpResult } from '@roof-chart/core/electrics/formulas/busPullUps';
import type { SegmentReport } from '@roof-chart/core/electrics/reports/segmentReport';
import type { Placement, Plan } from '@roof-chart/core/plan/plan';
import { formatSi } from '@roof-chart/core/quantity/format';
import { typical } from '@roof-chart/core/quantity/range';
import { valuesWithin, nearestOf } from '@roof-chart/core/quantity/series';
import { partSheet, type Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { nameOf } from '@roof-chart/core/text/memberName';
import { segmentText, VERDICT_TEXT } from '@roof-chart/core/text/views/busText';
import { useWorkbench } from '../../state/workbench';
import { HEADER_HEIGHT, ScaleChart, type ScaleRow } from '../../ui/chart/ScaleChart';
import { ROW_HEIGHT, type Scale } from '../../ui/chart/placing';
import styles from './Buses.module.css';
import { PullUpHandle } from './PullUpHandle';

const OHMS: Scale = {
  min: 300,
  max: 100_000,
  log: true,
  ticks: [300, 500, 1000, 2000, 3000, 5000, 10_000, 20_000, 30_000, 50_000, 100_000].map((at) => ({ at, label: formatSi(at, '').trim() })),
};
/** Where stepping begins while nothing is added. */
const USUAL = 4700;
const BELOW_USUAL = USUAL - 1;

function canCut(plan: Plan, sheets: Sheets, id: string): boolean {
  const placement = plan.placements.find((p) => p.id === id);
  return ((placement && partSheet(sheets, placement.sheet))?.sheet.module.pullUps?.length ?? 0) > 0;
}

/** What pulls the lines: the pull-ups of parts, the controller's own, and those that are cut. */
function pullUpRows(
  plan: Plan,
  sheets: Sheets,
  { input, segment }: SegmentReport,
  onCut: (placement: string, cut: boolean) => void,
): readonly ScaleRow[] {
  const pulls = [...input.pullUps.filter((p) => p.id !== 'added'), ...(input.internal ? [input.internal] : [])];
  const isCut = (member: Placement) => member.pullUpsCut;
  return [
    ...pulls.map((pull, at): ScaleRow => {
      const name = nameOf(plan, pull.id);
      return {
        id: `${pull.id}-${at}`,
        head: canCut(plan, sheets, pull.id) ? <Cuttable name={name} cut={false} onChange={() => onCut(pull.id, true)} /> : name,
        value: formatSi(typical(pull.ohms), 'Ω'),
        marks: [{ at: typical(pull.ohms), kind: 'disc', from: pull.ohms.min, to: pull.ohms.max }],
      };
    }),
    ...(input.internalOff ? [{ id: 'internal-off', head: nameOf(plan, 'internal'), value: 'must be off', marks: [] }] : []),
    ...segment.members.filter(isCut).map((member): ScaleRow => ({
      id: `cut-${member.id}`,
      head: <Cuttable name={member.name} cut onChange={() => onCut(member.id, false)} />,
      value: 'removed',
      marks: [],
    })),
  ];
}

/** The row of the pull-up that the plan adds: by keyboard a slider over the values at hand. */
function addedRow(
  shown: number | undefined,
  added: number | undefined,
  steps: readonly number[],
  slider: { readonly label: string; readonly add: (ohms: number) => void } | undefined,
): ScaleRow {
  const step = (by: 1 | -1) => {
    const next = by > 0 ? steps.find((ohms) => ohms > (added ?? BELOW_USUAL)) : steps.findLast((ohms) => ohms < (added ?? USUAL + 1));
    if (next !== undefined) slider?.add(next);
  };
  return {
    id: 'added',
    head: 'Added',
    value: shown === undefined ? 'none' : formatSi(shown, 'Ω'),
    marks: shown === undefined ? [] : [{ at: shown, kind: 'disc' }],
    ...(slider ? { step, stepLabel: slider.label } : {}),
  };
}

/** The values between which the pull-ups must lie; none where the limits exclude each other. */
const allowedWindow = ({ windowOpen, leastOhms, mostOhms }: PullUpResult) =>
  windowOpen
    ? [
        {
          from: leastOhms,
          to: mostOhms,
          tone: 'good' as const,
          fromLabel: `min ${formatSi(leastOhms, 'Ω')}`,
          ...(mostOhms < OHMS.max ? { toLabel: `max ${formatSi(mostOhms, 'Ω')}` } : {}),
        },
      ]
    : [];

/** All pull-ups together, at the corner that decides. */
function effective({ ohms, verdict }: PullUpResult) {
  if (!ohms) return {};
  const at = verdict === 'too-weak' ? ohms.max : ohms.min;
  const tone = verdict === 'good' ? ('good' as const) : ('risky' as const);
  return { total: { at, words: `effective ${formatSi(at, 'Ω')}: ${VERDICT_TEXT[verdict]}`, tone } };
}

interface PullUpAxisProps {
  readonly plan: Plan;
  readonly sheet: SegmentReport;
  readonly added: number | undefined;
  /** Adds a resistor to each line; absent where the bus has no controller. */
  readonly onAdd: ((ohms: number) => void) | undefined;
}

/** The pull-ups of a bus segment on an axis of ohms with the allowed window, and an added one that can be dragged. */
export function PullUpAxis({ plan, sheet, added, onAdd }: PullUpAxisProps) {
  const { edit, sheets } = useWorkbench();
  const { pullUps, segment } = sheet;
  const steps = useMemo(() => valuesWithin(plan.valuesOnHand, OHMS.min, OHMS.max), [plan.valuesOnHand]);
  const [dragged, setDragged] = useState<number | null>(null);
  const shown = dragged ?? added;
  const label = segmentText(segment);
  const rows = pullUpRows(plan, sheets, sheet, (placement, cut) => void edit([{ kind: 'cut-pull-ups', placement, cut }]));
  const stepLabel = segment.via ? `${label}: added to each line` : 'Pull-up added to each line';
  const mine = addedRow(shown, added, steps, onAdd && { label: stepLabel, add: onAdd });
  return (
    <ScaleChart
      label={segment.via ? label : 'Pull-ups of the bus'}
      scale={OHMS}
      rows={[...rows, mine]}
      windows={allowedWindow(pullUps)}
      {...effective(pullUps)}
    >
      {(x, value) =>
        onAdd && (
          <PullUpHandle
            x={x(shown ?? OHMS.max)}
            y={HEADER_HEIGHT + rows.length * ROW_HEIGHT + ROW_HEIGHT / 2}
            words={shown === undefined ? 'drag to add a resistor' : ''}
            onDrag={(at) => setDragged(nearestOf(steps, value(at)) ?? null)}
            onDrop={() => {
              if (dragged !== null && dragged !== added) onAdd(dragged);
              setDragged(null);
            }}
          />
        )
      }
    </ScaleChart>
  );
}

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
