import clsx from 'clsx';
import { Button, NativeSelect, Textarea } from '@mantine/core';
import { useMemo, useState } from 'react';
import { placementText } from '@roof-chart/core/text/names';
import { type BenchRemedy, compareScan, type Compared, likeliestBus, scanConclusion, scannedBuses } from '@roof-chart/core/bench/reconcile';
import { SCAN_LENGTH, type ScanRead } from '@roof-chart/core/bench/scan';
import { foundEdits } from '@roof-chart/core/bench/verified';
import type { Plan } from '@roof-chart/core/plan/plan';
import { counted, formatAddress } from '@roof-chart/core/quantity/format';
import { boardSheetOrThrow, type Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { ReadingState } from '../../ui/ReadingState';
import { useReading } from '../../ui/useReading';
import { useWorkbench } from '../../state/workbench';
import { COMPARED_TEXT, comparedText, conclusionText, scanText } from '@roof-chart/core/text/views/benchText';
import styles from './BringUp.module.css';

const TONE: { readonly [K in Compared['is']]: string } = {
  'as-planned': clsx(styles.good),
  'as-one': clsx(styles.bad),
  missing: clsx(styles.bad),
  behind: 'quiet',
  extra: clsx(styles.risky),
};

/** What a fix does to the plan. */
const fixWords = (plan: Plan, sheets: Sheets, { placement, address, part }: BenchRemedy): string =>
  part === undefined
    ? `Set ${formatAddress(address)} in the plan for ${placementText(plan, placement)}`
    : `${placementText(plan, placement)} is ${sheets.parts.get(part)?.sheet.title ?? part}: switch to it`;

/** A comparison of what answered with the plan, with what can be done about each difference. */
export function ComparedTable({ plan, lines }: { readonly plan: Plan; readonly lines: readonly Compared[] }) {
  const { sheets, edit } = useWorkbench();
  const found = foundEdits(plan, lines);
  return (
    <>
      <table className={styles.table} aria-label="Addresses found, compared with the plan">
        <tbody>
          {lines.map((line) => (
            <tr key={`${line.is} ${line.address}`}>
              <th scope="row" className="mono">
                {formatAddress(line.address)}
              </th>
              <td className={TONE[line.is]}>{COMPARED_TEXT[line.is]}</td>
              <td>
                {comparedText(plan, sheets, line)}
                {line.is === 'extra' &&
                  line.remedies.map((remedy) => (
                    <Button
                      key={`${remedy.placement} ${remedy.part ?? ''}`}
                      size="compact-xs"
                      variant="outline"
                      className={clsx(styles.remedy)}
                      onClick={() => edit(remedy.edits, fixWords(plan, sheets, remedy))}
                    >
                      {fixWords(plan, sheets, remedy)}
                    </Button>
                  ))}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {found.length > 0 && (
        <Button size="compact-sm" variant="default" onClick={() => edit(found, `record ${counted(found.length, 'part')} as found`)}>
          Record {counted(found.length, 'part')} as found
        </Button>
      )}
    </>
  );
}

const NOT_READ: ScanRead = { ok: false, fault: '' };

/** A pasted scan result compared with the plan. */
export function ScanCheck({ plan }: { readonly plan: Plan }) {
  const { sheets } = useWorkbench();
  const [text, setText] = useState('');
  const [chosen, setChosen] = useState('');
  const buses = useMemo(() => scannedBuses(plan, sheets), [plan, sheets]);
  const reading = useReading<ScanRead>(text, (reviewer) => reviewer.readScan(text));
  const read = reading.isCurrent && reading.value ? reading.value : NOT_READ;
  const controller = buses.some((bus) => bus.controller === chosen)
    ? chosen
    : read.ok
      ? likeliestBus(plan, sheets, read.scan)
      : buses[0]?.controller;
  const bus = buses.find((one) => one.controller === controller);
  const lines = useMemo(() => (read.ok && bus ? compareScan(plan, sheets, bus, read.scan) : []), [plan, sheets, bus, read]);
  const conclusion = read.ok ? scanConclusion(lines, read.scan.addresses) : undefined;
  if (buses.length === 0) return <p className="quiet">This plan has no I2C bus to scan.</p>;
  const board = boardSheetOrThrow(sheets, plan.board);
  return (
    <div className={styles.scan}>
      <Textarea
        label="Scan result"
        description="Paste the output of any I2C scanner: a grid, lines with 0x3C, or a list."
        placeholder={'0x3C\n0x68'}
        autosize
        minRows={4}
        maxRows={12}
        maxLength={SCAN_LENGTH + 1}
        value={text}
        onChange={(event) => setText(event.currentTarget.value)}
        styles={{ input: { fontFamily: 'var(--mono)', fontSize: 12 } }}
      />
      {buses.length > 1 && (
        <NativeSelect
          size="xs"
          label="Bus"
          value={controller ?? ''}
          data={buses.map((one) => ({ value: one.controller, label: board.controllers.get(one.controller)?.title ?? one.controller }))}
          onChange={(event) => setChosen(event.currentTarget.value)}
        />
      )}
      <div aria-live="polite">
        <ReadingState reading={reading} />
        {text.trim() !== '' &&
          reading.isCurrent &&
          reading.failure === null &&
          (read.ok ? <p className="quiet">{scanText(read.scan)}</p> : <p className={styles.bad}>{read.fault}</p>)}
        {conclusion && bus && <p className={styles.bad}>{conclusionText(plan, sheets, bus, conclusion)}</p>}
        {read.ok && conclusion !== 'all-respond' && <ComparedTable plan={plan} lines={lines} />}
      </div>
    </div>
  );
}
