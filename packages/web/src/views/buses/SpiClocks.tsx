import { firstOrThrow, lastOrThrow } from '@roof-chart/core/collections/orThrow';
import { rowId, type SpiReport, wireHz } from '@roof-chart/core/electrics/reports/spiReport';
import type { Bus } from '@roof-chart/core/nets/buses';
import type { Plan } from '@roof-chart/core/plan/plan';
import { formatSi } from '@roof-chart/core/quantity/format';
import { spiRowText } from '@roof-chart/core/text/lineText';
import { nameOf } from '@roof-chart/core/text/memberName';
import { ScaleChart, type ScaleRow } from '../../ui/chart/ScaleChart';
import type { Scale } from '../../ui/chart/placing';
import styles from './Buses.module.css';
import { ClockField, useBusSettings, WireLengthField } from './BusSettingFields';

const CLOCK_TICKS = [1e2, 1e3, 1e4, 1e5, 1e6, 1e7, 1e8].flatMap((decade) => [decade, 2 * decade, 5 * decade]);

/** The scale of clocks, 100 kHz to 100 MHz, wider where a clock lies outside it.
 *  @param clocks in hertz */
function clockScale(clocks: readonly number[]): Scale {
  const min = CLOCK_TICKS.findLast((tick) => tick <= Math.min(1e5, ...clocks)) ?? firstOrThrow(CLOCK_TICKS);
  const max = CLOCK_TICKS.find((tick) => tick >= Math.max(1e8, ...clocks)) ?? lastOrThrow(CLOCK_TICKS);
  const ticks = CLOCK_TICKS.filter((at) => at >= min && at <= max).map((at) => ({ at, label: formatSi(at, '').replace(/\s/g, '') }));
  return { min, max, log: true, ticks };
}
const SETTINGS = [1e6, 2e6, 4e6, 8e6, 10e6, 20e6, 40e6];

/** The clock of each part: for writing, for reading, and by a program where there is no controller for it. */
const clockRows = (plan: Plan, { rows, softwareHz }: SpiReport): readonly ScaleRow[] =>
  rows.map((row) => ({
    id: rowId(row),
    head: row.chain.length > 1 ? `${nameOf(plan, row.head)} and ${row.chain.length - 1} more` : spiRowText(plan, row),
    value: formatSi(row.write.hz, 'Hz'),
    hung: true,
    marks: [
      { at: row.write.hz, kind: 'disc' },
      ...(row.read && row.read.hz !== row.write.hz ? [{ at: row.read.hz, kind: 'ring' as const }] : []),
      ...(row.bySoftware && softwareHz && softwareHz < row.write.hz ? [{ at: softwareHz, kind: 'also' as const }] : []),
    ],
  }));

interface SpiClocksProps {
  readonly plan: Plan;
  readonly bus: Bus;
  readonly sheet: SpiReport;
  /** What sets the clock: the controller, or a program. */
  readonly maker: string;
}

/** Length of the wires and the highest clock, as the plan has them. */
function ClockFields({ plan, bus, sheet }: Pick<SpiClocksProps, 'plan' | 'bus' | 'sheet'>) {
  const settings = useBusSettings(plan, bus.controller);
  const clocks = SETTINGS.filter((hz) => hz <= (sheet.controllerHz ?? Infinity));
  return (
    <div className={styles.fields}>
      <WireLengthField bus={settings} assumed={sheet.wireCm} />
      <ClockField bus={settings} label="Maximum clock" usual="maximum of each device" clocks={clocks} />
    </div>
  );
}

/** The clock of each part on one axis, with what the wires and the controller allow. */
export function SpiClocks({ plan, bus, sheet, maker }: SpiClocksProps) {
  const rows = clockRows(plan, sheet);
  const scale = clockScale([
    ...rows.flatMap(({ marks }) => marks.map(({ at }) => at)),
    ...(sheet.controllerHz ? [sheet.controllerHz] : []),
  ]);
  const carried = wireHz(sheet.wireCm);
  return (
    <section className={styles.section}>
      <h2>
        Clock limits{' '}
        <span className={styles.aside}>disc: write, ring: read{sheet.softwareHz === undefined ? '' : ', cross: software SPI'}</span>
      </h2>
      <ScaleChart
        label="Clock limits"
        scale={scale}
        rows={rows}
        windows={[
          {
            from: Math.min(carried, scale.max),
            to: scale.max,
            tone: 'quiet',
            ...(carried < scale.max ? { fromLabel: `wires of ${sheet.wireCm} cm: ${formatSi(carried, 'Hz')}` } : {}),
          },
        ]}
        {...(sheet.controllerHz
          ? { total: { at: sheet.controllerHz, words: `${maker} ${formatSi(sheet.controllerHz, 'Hz')}`, tone: 'good' as const } }
          : {})}
      />
      <ClockFields plan={plan} bus={bus} sheet={sheet} />
    </section>
  );
}
