import { orThrow } from '@roof-chart/core/collections/orThrow';
import clsx from 'clsx';
import { flashLedger } from '@roof-chart/core/displays/flash';
import { memoryLedger } from '@roof-chart/core/displays/memory';
import type { Plan } from '@roof-chart/core/plan/plan';
import { formatBytes } from '@roof-chart/core/quantity/format';
import { useWorkbench } from '../../state/workbench';
import { ScaleChart, type ScaleRow } from '../../ui/chart/ScaleChart';
import type { Scale } from '../../ui/chart/placing';
import { flashRows, memoryRows } from './memoryRows';
import styles from './Displays.module.css';
import { flashText, memoryText } from '@roof-chart/core/text/views/displayText';

interface AxisProps {
  readonly label: string;
  readonly words: string;
  readonly total: number;
  readonly used: number;
  readonly rows: readonly ScaleRow[];
}

/** An axis of bytes with each use in turn, and the total. */
function Axis({ label, words, total, used, rows }: AxisProps) {
  const max = Math.max(total, used) * 1.06;
  const scale: Scale = {
    min: 0,
    max,
    log: false,
    ticks: [0, 0.25, 0.5, 0.75, 1].map((share) => ({ at: total * share, label: formatBytes(Math.round(total * share)) })),
  };
  return (
    <section className={styles.memory} aria-label={label}>
      <p className={clsx(styles.fact, used > total && total > 0 && styles.bad)}>{words}</p>
      {rows.length > 0 && total > 0 && (
        <ScaleChart
          label={`${label} of the board`}
          scale={scale}
          rows={rows}
          windows={[{ from: total, to: max, tone: 'clash' }]}
          headWidth={250}
          width={400}
        />
      )}
    </section>
  );
}

/** The RAM and the flash of the board, with what the displays take of them. */
export function MemoryAxes({ plan }: { readonly plan: Plan }) {
  const { sheets } = useWorkbench();
  const [ram, flash] = [orThrow(memoryLedger(plan, sheets), 'board sheet'), orThrow(flashLedger(plan, sheets), 'board sheet')];
  return (
    <>
      <Axis
        label="Memory"
        words={memoryText(ram)}
        total={ram.ramBytes}
        used={ram.runtimeBytes + ram.usedBytes}
        rows={memoryRows(plan, ram)}
      />
      {flash.flashBytes > 0 && flash.lines.length > 0 && (
        <Axis
          label="Flash"
          words={flashText(flash)}
          total={flash.flashBytes}
          used={flash.runtimeBytes + flash.usedBytes}
          rows={flashRows(plan, flash)}
        />
      )}
    </>
  );
}
