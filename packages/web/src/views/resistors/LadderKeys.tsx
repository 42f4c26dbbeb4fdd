import { dequal } from 'dequal';
import { findOrThrow } from '@roof-chart/core/collections/orThrow';
import { Button, TextInput } from '@mantine/core';
import { useState } from 'react';
import { fitLadder, type LadderReport } from '@roof-chart/core/electrics/reports/ladderReport';
import { terminalText } from '@roof-chart/core/text/names';
import type { Plan } from '@roof-chart/core/plan/plan';
import { typical } from '@roof-chart/core/quantity/range';
import { useWorkbench } from '../../state/workbench';
import { ScaleChart } from '../../ui/chart/ScaleChart';
import { ladderText, readLadder, writeLadder } from '@roof-chart/core/text/views/ladderText';
import styles from './Resistors.module.css';

/** The readings of every key on the scale of the converter, with the room between them. */
function Readings({ name, ladder: { counts, reading } }: { readonly name: string; readonly ladder: LadderReport }) {
  if (!reading || counts === undefined) return null;
  const gap = Math.max(0, reading.gap);
  const ranges = [...reading.keys.map((range, at) => ({ range, head: `Key ${at + 1}` })), { range: reading.idle, head: 'No key' }];
  return (
    <ScaleChart
      label={`Readings of ${name}`}
      scale={{
        min: 0,
        max: counts,
        log: false,
        ticks: [0, 0.25, 0.5, 0.75, 1].map((share) => ({ at: counts * share, label: String(Math.round(counts * share)) })),
      }}
      rows={ranges.map(({ range, head }) => ({
        id: head,
        head,
        value: `${Math.round(range.min)} to ${Math.round(range.max)}`,
        marks: [{ at: typical(range), kind: reading.verdict === 'overlap' ? 'clash' : 'disc', from: range.min, to: range.max }],
      }))}
      windows={reading.thresholds.map((at) => ({ from: at - gap / 2, to: at + gap / 2, tone: 'quiet' }))}
      headWidth={200}
      width={450}
    />
  );
}

/** Keys on one analog pin: their resistors, and what the pin reads for each. */
export function LadderKeys({ plan, ladder }: { readonly plan: Plan; readonly ladder: LadderReport }) {
  const { sheets, edit } = useWorkbench();
  const { placement, key, count, values, leadTo } = ladder;
  const [text, setText] = useState(values ? writeLadder(values) : '');
  const [problem, setProblem] = useState<string | null>(null);
  const name = findOrThrow(plan.placements, (p) => p.id === placement).name;
  const take = () => {
    if (text.trim() === '') return;
    const read = readLadder(text);
    if (typeof read === 'string') {
      setProblem(read);
      return;
    }
    setProblem(null);
    if (!dequal(read, values)) edit([{ kind: 'ladder', placement, ladder: read }]);
  };
  const fit = () => {
    const best = fitLadder(plan, count);
    if (best) edit([{ kind: 'ladder', placement, ladder: best }]);
    else setProblem(`No values on hand keep ${count} keys apart.`);
  };
  return (
    <section className={styles.ladder} aria-label={`Keys of ${name}`}>
      <h3>
        {name} <span className="quiet">{terminalText(plan, sheets, key)}</span>
      </h3>
      <p className="quiet">{ladderText(ladder)}</p>
      <div className={styles.row}>
        <TextInput
          size="xs"
          w={380}
          label={`Resistors: from the pin to ${leadTo === 'ground' ? 'the supply' : 'ground'} first, then key by key`}
          placeholder="10k, 1k, 2k2, 4k7"
          value={text}
          error={problem}
          onChange={(event) => setText(event.currentTarget.value)}
          onBlur={take}
          onKeyDown={(event) => event.key === 'Enter' && take()}
        />
        <Button size="compact-sm" variant="default" onClick={fit}>
          Choose from values on hand
        </Button>
      </div>
      <Readings name={name} ladder={ladder} />
    </section>
  );
}
