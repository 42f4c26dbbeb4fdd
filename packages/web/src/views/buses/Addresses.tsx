import type { Bus } from '@roof-chart/core/nets/buses';
import type { Plan } from '@roof-chart/core/plan/plan';
import { formatAddress } from '@roof-chart/core/quantity/format';
import type { AddressRow } from '@roof-chart/core/review/i2cReport';
import { useWorkbench } from '../../state/workbench';
import { ScaleChart, type ScaleRow } from '../../ui/chart/ScaleChart';
import type { Scale } from '../../ui/chart/placing';
import { AddressTools } from './AddressTools';
import styles from './Buses.module.css';
import { nameOf } from '@roof-chart/core/text/memberName';

const ADDRESSES: Scale = {
  min: 0,
  max: 127,
  log: false,
  ticks: Array.from({ length: 16 }, (_, n) => ({ at: n * 8, ...(n % 2 === 0 ? { label: formatAddress(n * 8) } : {}) })),
};

/** All addresses of a bus: who answers where, who could answer elsewhere, and where two meet. */
export function Addresses({ plan, bus, rows }: { readonly plan: Plan; readonly bus: Bus; readonly rows: readonly AddressRow[] }) {
  const { edit } = useWorkbench();
  const give = (row: AddressRow, address: number) => {
    const option = row.options.find((o) => o.addresses.includes(address));
    if (option) edit(option.edits, `set ${nameOf(plan, row.placement)} to ${formatAddress(address)}`);
  };
  const scaleRows = rows.map((row): ScaleRow => {
    const could = row.steps.filter((address) => !row.now.includes(address));
    const step = (by: 1 | -1) => {
      const here = row.steps.findIndex((address) => row.now.includes(address));
      const next = row.steps[here + by];
      if (next !== undefined) give(row, next);
    };
    return {
      id: row.placement,
      head:
        row.channel === undefined
          ? nameOf(plan, row.placement)
          : `${nameOf(plan, row.placement)}, channel ${row.channel.split('.').at(-1)}`,
      value: row.now.map(formatAddress).join(' ') || 'none',
      hung: true,
      marks: [
        ...could.map((at) => ({ at, kind: 'ring' as const })),
        ...row.also.map((at) => ({ at, kind: 'also' as const })),
        ...row.now.map((at) => ({ at, kind: row.shared.includes(at) ? ('clash' as const) : ('disc' as const) })),
      ],
      ...(could.length > 0 ? { step, stepLabel: `Address of ${nameOf(plan, row.placement)}`, onMark: (at: number) => give(row, at) } : {}),
    };
  });
  const clashes = [...new Set(rows.flatMap((row) => row.shared))];
  return (
    <section className={styles.section}>
      <h2>Addresses</h2>
      <ScaleChart
        label="Addresses of the bus"
        scale={ADDRESSES}
        rows={scaleRows}
        windows={[
          { from: 0, to: 7.5, tone: 'quiet' },
          { from: 119.5, to: 127, tone: 'quiet' },
          ...clashes.map((address) => ({ from: address - 0.7, to: address + 0.7, tone: 'clash' as const })),
        ]}
      />
      <AddressTools plan={plan} bus={bus} rows={rows} clashing={clashes.length > 0} />
    </section>
  );
}
