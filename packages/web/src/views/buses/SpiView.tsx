import { NativeSelect, NumberInput } from '@mantine/core';
import { useMemo } from 'react';
import { endKey } from '@roof-chart/core/plan/plan';
import { rowId, spiReport, wireHz, type SpiRow } from '@roof-chart/core/electrics/reports/spiReport';
import type { Bus } from '@roof-chart/core/nets/buses';
import { terminalsOf } from '@roof-chart/core/nets/terminals';
import { boardOf } from '@roof-chart/core/plan/edit';
import type { Plan } from '@roof-chart/core/plan/plan';
import { counted, formatSi } from '@roof-chart/core/quantity/format';
import { useWorkbench } from '../../state/workbench';
import { LineChart, type LineColumn, type LineRow } from '../../ui/chart/LineChart';
import { ScaleChart, type ScaleRow } from '../../ui/chart/ScaleChart';
import type { Scale } from '../../ui/chart/placing';
import styles from './Buses.module.css';
import { BusPlaceMenu } from './BusPlaceMenu';
import { percent } from '@roof-chart/core/text/views/busText';
import { clockText, rateText, selectText, spiAdvice } from '@roof-chart/core/text/lineText';
import { nameOf } from '@roof-chart/core/text/memberName';
import { RateField } from './RateField';
import { changed, commit } from '../../ui/busSettings';

const CLOCK_TICKS = [1e2, 1e3, 1e4, 1e5, 1e6, 1e7, 1e8].flatMap((decade) => [decade, 2 * decade, 5 * decade]);

/** The scale of clocks, 100 kHz to 100 MHz, wider where a clock lies outside it.
 *  @param clocks in hertz */
function clockScale(clocks: readonly number[]): Scale {
  const min = CLOCK_TICKS.findLast((tick) => tick <= Math.min(1e5, ...clocks)) ?? CLOCK_TICKS[0]!;
  const max = CLOCK_TICKS.find((tick) => tick >= Math.max(1e8, ...clocks)) ?? CLOCK_TICKS.at(-1)!;
  const ticks = CLOCK_TICKS.filter((at) => at >= min && at <= max).map((at) => ({ at, label: formatSi(at, '').replace(/\s/g, '') }));
  return { min, max, log: true, ticks };
}
const SETTINGS = [1e6, 2e6, 4e6, 8e6, 10e6, 20e6, 40e6];

/** A part, or the further chip of it that a row is about. */
const rowName = (plan: Plan, { head, further }: SpiRow): string =>
  further ? `${nameOf(plan, head)}, ${further.chip}` : nameOf(plan, head);

/** The report of an SPI bus: lines and chip selects with all parts, daisy chains in wiring order, the clock of each part with its
 *  limiting factor, bus load. */
export function SpiView({ plan, bus }: { readonly plan: Plan; readonly bus: Bus }) {
  const { sheets, edit } = useWorkbench();
  const board = boardOf(plan, sheets)!;
  const sheet = useMemo(() => spiReport(plan, sheets, board, bus), [plan, sheets, board, bus]);
  const controller = bus.controller;
  const settings = controller === undefined ? undefined : plan.busSettings[controller];
  const set = (change: Parameters<typeof changed>[1]) => {
    if (controller !== undefined) edit([{ kind: 'bus-settings', segment: controller, settings: changed(settings, change) }]);
  };
  const maker = controller !== undefined && board.controllers.get(controller)?.software ? 'program' : 'controller';
  const pinLabel = (pin: string) => board.pins.get(pin)?.label ?? pin;
  const selects = sheet.rows.flatMap((row) => (row.select?.wire?.end.to === 'pin' ? [row.select.wire.end.pin] : []));
  const columns: readonly LineColumn[] = [
    ...(['sck', 'mosi', 'miso'] as const).flatMap((line) => {
      const pin = bus.pins[line];
      return pin ? [{ id: line, label: line.toUpperCase(), pin: pinLabel(pin) }] : [];
    }),
    ...[...new Set(selects)].map((pin) => ({ id: `cs ${pin}`, label: 'CS', pin: pinLabel(pin) })),
  ];
  const lineRows = sheet.rows.flatMap((row) =>
    row.chain.map((id, at): LineRow => {
      const own = terminalsOf(plan, { id }, sheets);
      const lines = (['sck', 'mosi', 'miso'] as const).filter((line) =>
        own.some((t) => t.terminal.role === `spi.${line}` && t.wire && (line !== 'mosi' || at === 0)),
      );
      const select = (row.further ? row.select : own.find((t) => t.terminal.role === 'spi.cs'))?.wire?.end;
      return {
        id: row.further ? rowId(row) : id,
        head: row.further ? `${nameOf(plan, id)}, ${row.further.chip}` : nameOf(plan, id),
        value: row.chain.length > 1 ? `${at + 1} of ${row.chain.length}` : '',
        at: [...lines, ...(select?.to === 'pin' ? [`cs ${endKey(select).slice(4)}`] : [])],
        ...(at > 0 ? { follows: 'mosi' } : {}),
      };
    }),
  );
  const clockRows = sheet.rows.map((row): ScaleRow => ({
    id: rowId(row),
    head: row.chain.length > 1 ? `${nameOf(plan, row.head)} and ${row.chain.length - 1} more` : rowName(plan, row),
    value: formatSi(row.write.hz, 'Hz'),
    hung: true,
    marks: [
      { at: row.write.hz, kind: 'disc' },
      ...(row.read && row.read.hz !== row.write.hz ? [{ at: row.read.hz, kind: 'ring' as const }] : []),
      ...(row.bySoftware && sheet.softwareHz && sheet.softwareHz < row.write.hz ? [{ at: sheet.softwareHz, kind: 'also' as const }] : []),
    ],
  }));
  const clocks = clockScale([
    ...clockRows.flatMap(({ marks }) => marks.map(({ at }) => at)),
    ...(sheet.controllerHz ? [sheet.controllerHz] : []),
  ]);
  const carried = wireHz(sheet.wireCm);
  return (
    <>
      <div className={styles.head}>
        <p className={styles.facts}>
          {counted(sheet.rows.length, 'chip select')} ·{' '}
          {sheet.controllerHz
            ? `${maker} up to ${formatSi(sheet.controllerHz, 'Hz')}${maker === 'program' ? ', compiled' : ''}`
            : 'no controller'}{' '}
          · bus load {percent(sheet.share)}
        </p>
        <BusPlaceMenu plan={plan} bus={bus} />
      </div>
      <section className={styles.section}>
        <h2>Lines and chip selects</h2>
        <LineChart label="Lines of the bus" columns={columns} rows={lineRows} />
        <ul className={styles.says}>
          {spiAdvice(plan, sheets, sheet).map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ul>
      </section>
      <section className={styles.section}>
        <h2>
          Clock limits{' '}
          <span className={styles.aside}>disc: write, ring: read{sheet.softwareHz === undefined ? '' : ', cross: software SPI'}</span>
        </h2>
        <ScaleChart
          label="Clock limits"
          scale={clocks}
          rows={clockRows}
          windows={[
            {
              from: Math.min(carried, clocks.max),
              to: clocks.max,
              tone: 'quiet',
              ...(carried < clocks.max ? { fromLabel: `wires of ${sheet.wireCm} cm: ${formatSi(carried, 'Hz')}` } : {}),
            },
          ]}
          {...(sheet.controllerHz
            ? {
                total: { at: sheet.controllerHz, words: `${maker} ${formatSi(sheet.controllerHz, 'Hz')}`, tone: 'good' as const },
              }
            : {})}
        />
        <div className={styles.fields}>
          <NumberInput
            size="xs"
            label="Wire length per line, cm"
            min={0}
            max={10_000}
            value={settings?.wireCm ?? ''}
            placeholder={`${sheet.wireCm} assumed`}
            onBlur={(event) => commit(event.currentTarget.value, settings?.wireCm, (wireCm) => set({ wireCm }))}
          />
          <NativeSelect
            size="xs"
            label="Maximum clock"
            value={String(settings?.hz ?? '')}
            data={[
              { value: '', label: 'maximum of each device' },
              ...SETTINGS.filter((hz) => hz <= (sheet.controllerHz ?? Infinity)).map((hz) => ({
                value: String(hz),
                label: formatSi(hz, 'Hz'),
              })),
            ]}
            onChange={(event) => {
              const hz = event.currentTarget.value === '' ? undefined : Number(event.currentTarget.value);
              set({ hz });
            }}
          />
        </div>
      </section>
      <section className={styles.section}>
        <h2>
          Bus load <span className={styles.aside}>{percent(sheet.share)}</span>
        </h2>
        <div className={styles.tableScroll}>
          <table className={styles.table}>
            <thead>
              <tr>
                <th scope="col">Part</th>
                <th scope="col">Chip select</th>
                <th scope="col">Write clock</th>
                <th scope="col">Read clock</th>
                <th scope="col">Accesses per second</th>
                <th scope="col">Utilisation</th>
                <th scope="col">Maximum rate</th>
                {sheet.softwareHz !== undefined && <th scope="col">Software SPI</th>}
              </tr>
            </thead>
            <tbody>
              {sheet.rows.map((row) => (
                <tr key={rowId(row)}>
                  <th scope="row">{row.further ? rowName(plan, row) : row.chain.map((id) => nameOf(plan, id)).join(', ')}</th>
                  <td>{selectText(plan, sheets, row)}</td>
                  <td>{clockText(row.write)}</td>
                  <td>{clockText(row.read)}</td>
                  <td>{row.perSecond === undefined ? '' : <RateField plan={plan} placement={row.head} usual={row.perSecond} />}</td>
                  <td className="num">{row.time ? percent(row.time.share) : ''}</td>
                  <td>{rateText(row.time?.mostPerSecond, row.what)}</td>
                  {sheet.softwareHz !== undefined && <td>{rateText(row.bySoftware?.mostPerSecond, row.what)}</td>}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </section>
    </>
  );
}
