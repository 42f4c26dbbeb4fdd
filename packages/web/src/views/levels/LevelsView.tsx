import { Button, SegmentedControl } from '@mantine/core';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { behindShifter } from '@roof-chart/core/allocate/behindShifter';
import { sayPlacement } from '@roof-chart/core/checks/say';
import { levelPairs } from '@roof-chart/core/electrics/levels';
import { boardOf, partOf } from '@roof-chart/core/plan/edit';
import { splitKey } from '@roof-chart/core/plan/plan';
import { counted, formatSi } from '@roof-chart/core/quantity/format';
import { useWorkbench } from '../../app/workbench';
import { HangScale, type ScaleRow } from '../../hang/HangScale';
import type { Scale } from '../../hang/placing';
import { useAppSelector } from '../../store/store';
import styles from './Levels.module.css';
import { groupHead, type LevelGroup, levelGroups, levelWords, VERDICT_WORDS } from './levelWords';

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
    value: VERDICT_WORDS[pair.verdict],
    marks: [
      { at: pair.vilVolts, kind: 'ring' },
      { at: pair.vihVolts, kind: 'ring' },
      { at: pair.standsVolts, kind: 'also' },
      { at: Math.max(0, pair.lowVolts), kind: 'disc', from: 0, to: Math.max(0, pair.lowVolts) },
      { at: pair.highVolts, kind: bad ? 'clash' : 'disc', from: pair.highVolts, to: Math.max(pair.highVolts, pair.mostVolts) },
    ],
  };
};

/** Signals between board and parts on an axis of volts: what comes, what is asked, and what is stood, at the worst corner. */
export function LevelsView() {
  const plan = useAppSelector((state) => state.document.plan)!;
  const { sheets, edit } = useWorkbench();
  const [scope, setScope] = useState<'care' | 'all'>('care');
  const board = boardOf(plan, sheets)!;
  const pairs = useMemo(() => levelPairs(plan, sheets), [plan, sheets]);
  const all = useMemo(() => levelGroups(plan, sheets, pairs), [plan, sheets, pairs]);
  const care = all.filter(({ pair }) => pair.verdict !== 'good');
  const shown = scope === 'all' ? all : care;
  if (pairs.length === 0)
    return (
      <div className={styles.empty}>
        <h2>No levels to compare yet</h2>
        <p>As soon as a part with a supply is wired to a pin, what it gives and asks stands here against what the board gives and asks.</p>
        <Button component={Link} to={`/plans/${plan.id}/chart`}>
          Open the Chart
        </Button>
      </div>
    );
  return (
    <div className={styles.view}>
      <div className={styles.top}>
        <h2 className={styles.title}>Levels</h2>
        <span className="quiet num">
          {counted(pairs.length, 'signal')},{' '}
          {counted(
            care.reduce((sum, g) => sum + g.labels.length, 0),
            'of them without much margin',
            'of them without much margin',
          )}
        </span>
        <SegmentedControl
          size="xs"
          aria-label="Signals shown"
          value={scope}
          onChange={(value) => setScope(value as 'care' | 'all')}
          data={[
            { value: 'care', label: 'To look at' },
            { value: 'all', label: 'All' },
          ]}
        />
      </div>
      {shown.length === 0 ? (
        <p className={styles.good}>Every signal has margin at every corner of both supplies.</p>
      ) : (
        <>
          <p className="quiet">Disc: what comes. Rings: what is asked, low at most and high at least. Cross: what the input stands.</p>
          <HangScale
            label="Levels of the signals"
            scale={scaleFor(shown)}
            rows={shown.map((group) => rowOf(groupHead(plan, group), group))}
            windows={[]}
            headWidth={330}
            width={480}
          />
        </>
      )}
      <ul className={styles.says}>
        {shown.map((group) => {
          const { placement } = splitKey(group.pair.key);
          const kind = partOf(plan, placement, sheets)?.sheet.bus.kind;
          const bad = group.pair.verdict === 'damage' || group.pair.verdict === 'none';
          const shifted = bad && kind === 'i2c' ? behindShifter(plan, sheets, board, [placement], 'i2c') : undefined;
          return (
            <li key={group.id} className={styles[group.pair.verdict]}>
              {levelWords(plan, group)}
              {shifted && (
                <Button
                  size="compact-xs"
                  variant="outline"
                  className={styles.way!}
                  onClick={() => edit(shifted.edits, `put ${sayPlacement(plan, placement)} behind a level shifter`)}
                >
                  Put {sayPlacement(plan, placement)} behind a level shifter
                </Button>
              )}
            </li>
          );
        })}
      </ul>
      <details className={styles.how}>
        <summary>How this is worked out</summary>
        <p>
          Margin of the high level: what comes at the least, less what the input asks (its share of its own supply, or volts). Margin of the
          low level: what the input takes for low, less what comes at the most. Both at the lowest and the highest of the receiver’s supply;
          what hangs on the same rail moves with it, everything else is at its worst. Outputs drop what their resistance drops at 0.1 mA, on
          I2C lines what 3 mA drop; lines that resistors bring high rest where those pull them. An input stands what its sheet says, else
          its supply and 0.3 V, on I2C 0.5 V (UM10204, table 9).
        </p>
        <p>
          The numbers are of the sheets: <Link to={`/plans/${plan.id}/facts`}>facts of this plan, with their sources</Link>.
        </p>
      </details>
    </div>
  );
}
