import { type With } from '@roof-chart/core/collections/has';
import clsx from 'clsx';
import { NumberInput } from '@mantine/core';
import type { SupplyLine } from '@roof-chart/core/electrics/reports/railReport';
import { type LoadUse, type Plan, PLAN_LIMITS } from '@roof-chart/core/plan/plan';
import { useWorkbench } from '../../state/workbench';
import { commit } from '../../ui/busSettings';
import styles from './Supply.module.css';

/** How many there are of a part, and how much of its peak is on at the same time as the others. */
export function LoadFields({
  plan,
  line,
  name,
  unit,
}: {
  readonly plan: Plan;
  readonly line: With<SupplyLine, 'placement'>;
  readonly name: string;
  readonly unit: string | undefined;
}) {
  const { edit } = useWorkbench();
  const { placement } = line;
  const load = plan.loads[placement] ?? {};
  const set = (change: { readonly units?: number | undefined; readonly share?: number | undefined }) => {
    const next = Object.fromEntries(Object.entries({ ...load, ...change }).filter(([, value]) => value !== undefined)) as LoadUse;
    edit([{ kind: 'load', placement, load: Object.keys(next).length > 0 ? next : null }]);
  };
  return (
    <>
      <td>
        {unit !== undefined && (
          <NumberInput
            size="xs"
            className={clsx(styles.number)}
            aria-label={`Number of ${unit}s of ${name}`}
            min={1}
            max={PLAN_LIMITS.loadUnits}
            allowDecimal={false}
            value={load.units ?? ''}
            placeholder="1"
            onBlur={(event) => commit(event.currentTarget.value, load.units, (units) => set({ units }))}
          />
        )}
      </td>
      <td>
        <NumberInput
          size="xs"
          className={clsx(styles.number)}
          aria-label={`Simultaneous use of ${name}, per cent of peak`}
          min={0}
          max={100}
          suffix=" %"
          value={load.share === undefined ? '' : Math.round(load.share * 100)}
          placeholder="100 %"
          onBlur={(event) => {
            const before = load.share === undefined ? undefined : Math.round(load.share * 100);
            commit(event.currentTarget.value.replace('%', '').trim(), before, (share) =>
              set({ share: share === undefined ? undefined : Math.min(100, Math.max(0, share)) / 100 }),
            );
          }}
        />
      </td>
    </>
  );
}
