import clsx from 'clsx';
import { NumberInput } from '@mantine/core';
import type { Plan } from '@roof-chart/core/plan/plan';
import { useWorkbench } from '../../state/workbench';
import styles from './Buses.module.css';
import { nameOf } from '@roof-chart/core/text/memberName';
import { commit } from '../../ui/busSettings';

/** Update rate of a part in Hz; empty: default of its sheet. */
export function RateField({ plan, placement, usual }: { readonly plan: Plan; readonly placement: string; readonly usual: number }) {
  const { edit } = useWorkbench();
  const name = nameOf(plan, placement);
  return (
    <NumberInput
      size="xs"
      className={clsx(styles.rate)}
      aria-label={`Accesses of ${name} per second`}
      min={0}
      max={10_000}
      decimalScale={2}
      value={plan.rates[placement] ?? ''}
      placeholder={String(usual)}
      onBlur={(event) =>
        commit(event.currentTarget.value, plan.rates[placement], (value) => edit([{ kind: 'rate', placement, perSecond: value ?? null }]))
      }
    />
  );
}
