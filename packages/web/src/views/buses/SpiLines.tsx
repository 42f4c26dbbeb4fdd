import { atOrThrow } from '@roof-chart/core/collections/orThrow';
import { endKey, type Plan } from '@roof-chart/core/plan/plan';
import { rowId, type SpiReport, type SpiRow } from '@roof-chart/core/electrics/reports/spiReport';
import type { Bus } from '@roof-chart/core/nets/buses';
import { terminalsOf } from '@roof-chart/core/nets/terminals';
import { boardOf } from '@roof-chart/core/plan/edit';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { spiAdvice, spiRowText } from '@roof-chart/core/text/lineText';
import { useWorkbench } from '../../state/workbench';
import { LineChart, type LineColumn, type LineRow } from '../../ui/chart/LineChart';
import styles from './Buses.module.css';

const LINES = ['sck', 'mosi', 'miso'] as const;

/** The lines of the bus and its chip selects, each with its pin. */
function lineColumns({ pins }: Bus, { rows }: SpiReport, pinLabel: (pin: string) => string): readonly LineColumn[] {
  const selects = rows.flatMap((row) => (row.select?.wire?.end.to === 'pin' ? [row.select.wire.end.pin] : []));
  return [
    ...LINES.flatMap((line) => {
      const pin = pins[line];
      return pin ? [{ id: line, label: line.toUpperCase(), pin: pinLabel(pin) }] : [];
    }),
    ...[...new Set(selects)].map((pin) => ({ id: `cs ${pin}`, label: 'CS', pin: pinLabel(pin) })),
  ];
}

/** A part of a chain, or the only one, with the lines that it is on: of a chain only the first is on MOSI. */
function lineRow(plan: Plan, sheets: Sheets, row: SpiRow, at: number): LineRow {
  const id = atOrThrow(row.chain, at);
  const own = terminalsOf(plan, { id }, sheets);
  const lines = LINES.filter((line) => own.some((t) => t.terminal.role === `spi.${line}` && t.wire && (line !== 'mosi' || at === 0)));
  const select = (row.further ? row.select : own.find((t) => t.terminal.role === 'spi.cs'))?.wire?.end;
  return {
    id: row.further ? rowId(row) : id,
    head: spiRowText(plan, { ...row, head: id }),
    value: row.chain.length > 1 ? `${at + 1} of ${row.chain.length}` : '',
    at: [...lines, ...(select?.to === 'pin' ? [`cs ${endKey(select).slice(4)}`] : [])],
    ...(at > 0 ? { follows: 'mosi' } : {}),
  };
}

/** Which part is on which line, daisy chains in wiring order. */
export function SpiLines({ plan, bus, sheet }: { readonly plan: Plan; readonly bus: Bus; readonly sheet: SpiReport }) {
  const { sheets } = useWorkbench();
  const board = boardOf(plan, sheets);
  const columns = lineColumns(bus, sheet, (pin) => board?.pins.get(pin)?.label ?? pin);
  const rows = sheet.rows.flatMap((row) => row.chain.map((_, at) => lineRow(plan, sheets, row, at)));
  return (
    <section className={styles.section}>
      <h2>Lines and chip selects</h2>
      <LineChart label="Lines of the bus" columns={columns} rows={rows} />
      <ul className={styles.says}>
        {spiAdvice(plan, sheets, sheet).map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
    </section>
  );
}
