import { Button, SegmentedControl } from '@mantine/core';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import type { Finding } from '@roof-chart/core/checks/engine/check';
import { translateAll } from '@roof-chart/core/checks/fixes/levelTranslation';
import { levelPairs } from '@roof-chart/core/electrics/reports/levels';
import type { Plan } from '@roof-chart/core/plan/plan';
import { contextOf } from '@roof-chart/core/review/review';
import { counted, formatSi } from '@roof-chart/core/quantity/format';
import { selectFindings, selectReviewed } from '../../state/selectors';
import { useWorkbench } from '../../state/workbench';
import { RemedyButton } from '../../ui/findings/RemedyButton';
import { ScaleChart, type ScaleRow } from '../../ui/chart/ScaleChart';
import type { Scale } from '../../ui/chart/placing';
import { useAppSelector, useOpenPlan } from '../../state/store';
import styles from './Levels.module.css';
import {
  groupHead,
  isSaidByRow,
  type LevelGroup,
  levelGroups,
  levelText,
  moduleText,
  verdictText,
} from '@roof-chart/core/text/views/levelText';
import { Shifters } from './Shifters';

/** An axis of volts that holds every value. */
function scaleFor(groups: readonly LevelGroup[]): Scale {
  const most = Math.max(4, ...groups.flatMap(({ pair }) => [pair.mostVolts, pair.standsVolts, pair.vihVolts]));
  const max = Math.ceil(most);
  const step = max > 8 ? 2 : 1;
  return {
    min: 0,
    max,
    log: false,
    ticks: Array.from({ length: Math.floor(max / step) + 1 }, (_, n) => ({ at: n * step, label: formatSi(n * step, 'V') })),
  };
}

const rowOf = (name: string, { id, pair }: LevelGroup): ScaleRow => {
  const bad = pair.verdict === 'damage' || pair.verdict === 'none';
  return {
    id,
    head: name,
    value: verdictText(pair),
    marks: [
      { at: pair.vilVolts, kind: 'ring', name: 'VIL', nameBelow: true },
      { at: pair.vihVolts, kind: 'ring', name: 'VIH', nameBelow: true },
      { at: pair.standsVolts, kind: 'also', name: 'max', nameBelow: true },
      { at: Math.max(0, pair.lowVolts), kind: 'disc', from: 0, to: Math.max(0, pair.lowVolts), name: 'VOL' },
      { at: pair.highVolts, kind: bad ? 'clash' : 'disc', from: pair.highVolts, to: Math.max(pair.highVolts, pair.mostVolts), name: 'VOH' },
    ],
  };
};

/** A finding about the levels of a group's part: what helps it helps all its signals, whichever way they go. */
const findingOf = (findings: readonly Finding[], { pair }: LevelGroup): Finding | undefined =>
  findings.find((f) => f.place.placements?.[0] === pair.placement && f.code.startsWith('level-'));

type Scope = 'care' | 'all';

/** Which signals are shown, and how many there are. */
function Top({ pairs, care, scope, onScope }: TopProps) {
  const low = care.reduce((sum, { labels }) => sum + labels.length, 0);
  return (
    <div className={styles.top}>
      <h2 className={styles.title}>Levels</h2>
      <span className="quiet num">
        {counted(pairs, 'signal')}, {counted(low, 'with low margin', 'with low margin')}
      </span>
      <SegmentedControl
        size="xs"
        aria-label="Signals shown"
        value={scope}
        onChange={(value) => onScope(value as Scope)}
        data={[
          { value: 'care', label: 'To check' },
          { value: 'all', label: 'All' },
        ]}
      />
    </div>
  );
}

interface TopProps {
  readonly pairs: number;
  readonly care: readonly LevelGroup[];
  readonly scope: Scope;
  readonly onScope: (scope: Scope) => void;
}

interface GroupsProps {
  readonly plan: Plan;
  readonly groups: readonly LevelGroup[];
}

/** The levels of each group of signals on one axis. */
function LevelAxis({ plan, groups }: GroupsProps) {
  if (groups.length === 0) return <p className={styles.good}>Every signal has margin at every corner of both supplies.</p>;
  return (
    <>
      <p className="quiet">
        Above: output of the driver, worst case. Below: thresholds and absolute maximum of the input. At the left: the smaller noise margin.
      </p>
      <ScaleChart
        label="Levels of the signals"
        scale={scaleFor(groups)}
        rows={groups.map((group) => rowOf(groupHead(plan, group), group))}
        windows={[]}
        headWidth={330}
        width={480}
      />
    </>
  );
}

/** What there is to say about the groups beyond their margin, with what helps. */
function Sentences({ plan, groups }: GroupsProps) {
  const reviewed = useAppSelector(selectReviewed);
  const all = useAppSelector(selectFindings);
  const findings = reviewed?.plan === plan ? all.filter((f) => f.place.view === 'levels') : [];
  return (
    <ul className={styles.says}>
      {groups.map((group, at) => {
        // What helps a part is offered once, whichever ways its signals go.
        const again = groups.findIndex((other) => other.pair.placement === group.pair.placement) < at;
        const finding = again ? undefined : findingOf(findings, group);
        // The row has said it: a sentence only where more than the margin is to be told.
        if (isSaidByRow(group) && !finding?.remedies.length) return null;
        return (
          <li key={group.id} className={styles[group.pair.verdict]}>
            {levelText(plan, group)}
            {finding && finding.remedies.length > 0 && (
              <div className={styles.ways}>
                {finding.remedies.map((remedy) => (
                  <RemedyButton key={remedy.label} plan={plan} finding={finding} remedy={remedy} />
                ))}
              </div>
            )}
          </li>
        );
      })}
    </ul>
  );
}

/** One press that shifts the levels of every part that needs it; of a single part its own finding does. */
function ShiftTogether({ plan, groups }: GroupsProps) {
  const { sheets, edit } = useWorkbench();
  const troubled = new Set(groups.flatMap(({ pair }) => (pair.verdict === 'damage' || pair.verdict === 'none' ? [pair.placement] : [])))
    .size;
  const together = useMemo(() => {
    const context = troubled > 1 ? contextOf(plan, sheets) : undefined;
    return context && translateAll(context);
  }, [plan, sheets, troubled]);
  if (!together) return null;
  return (
    <p className={styles.together}>
      <Button size="compact-sm" variant="outline" onClick={() => edit(together.edits, 'level-shift all lines')}>
        Level-shift all together
      </Button>
      <span className="quiet">{moduleText(together.modules)}</span>
    </p>
  );
}

function Empty({ plan }: { readonly plan: Plan }) {
  return (
    <div className={styles.empty}>
      <h2>No levels to compare yet</h2>
      <p>Connect a powered part to a pin to compare its levels with those of the board here.</p>
      <Button component={Link} to={`/plans/${plan.id}/chart`}>
        Open the Chart
      </Button>
    </div>
  );
}

function Method({ plan }: { readonly plan: Plan }) {
  return (
    <details className={styles.how}>
      <summary>How this is calculated</summary>
      <p>
        Noise margin of the high level: lowest VOH less VIH. Noise margin of the low level: VIL less highest VOL. Both at minimum and
        maximum supply of the receiver; parts on the same rail follow it, all other supplies are at their worst case. Output levels include
        the drop of the output resistance at 0.1 mA, on I2C lines at 3 mA; pulled-up lines idle at the voltage of their pull-ups. The
        absolute maximum of an input is that of its sheet, otherwise VDD + 0.3 V, on I2C VDD + 0.5 V (UM10204, table 9).
      </p>
      <p>
        Source of the numbers: <Link to={`/plans/${plan.id}/facts`}>facts of this plan, with their sources</Link>.
      </p>
    </details>
  );
}

/** Signals between board and parts on an axis of volts: output levels, input thresholds and absolute maximum, worst case. */
export function LevelsView() {
  const plan = useOpenPlan();
  const { sheets } = useWorkbench();
  const [scope, setScope] = useState<Scope>('care');
  const pairs = useMemo(() => levelPairs(plan, sheets), [plan, sheets]);
  const all = useMemo(() => levelGroups(plan, sheets, pairs), [plan, sheets, pairs]);
  const care = all.filter(({ pair }) => pair.verdict !== 'good');
  const shown = scope === 'all' ? all : care;
  if (pairs.length === 0) return <Empty plan={plan} />;
  return (
    <div className={styles.view}>
      <Top pairs={pairs.length} care={care} scope={scope} onScope={setScope} />
      <LevelAxis plan={plan} groups={shown} />
      <Sentences plan={plan} groups={shown} />
      <ShiftTogether plan={plan} groups={care} />
      <Shifters plan={plan} />
      <Method plan={plan} />
    </div>
  );
}
