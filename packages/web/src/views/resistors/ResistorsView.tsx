import { has } from '@roof-chart/core/collections/has';
import clsx from 'clsx';
import { Button } from '@mantine/core';
import { useMemo, useState } from 'react';
import { ladderReports } from '@roof-chart/core/electrics/reports/ladderReport';
import { planResistors } from '@roof-chart/core/electrics/reports/planResistors';
import type { Edit } from '@roof-chart/core/plan/edit';
import { splitKey } from '@roof-chart/core/plan/plan';
import { counted } from '@roof-chart/core/quantity/format';
import { useWorkbench } from '../../state/workbench';
import { useOpenPlan } from '../../state/store';
import { ValuesOnHandFields } from '../../ui/ValuesOnHandFields';
import { Calculators } from './Calculators';
import { LadderKeys } from './LadderKeys';
import { LoadLine } from './LoadLine';
import styles from './Resistors.module.css';
import { ResistorTable } from './ResistorTable';

/** Every resistor that the plan has or lacks, with its value, its marks and its load; and the calculators. */
export function ResistorsView() {
  const plan = useOpenPlan();
  const { sheets, edit } = useWorkbench();
  const list = useMemo(() => planResistors(plan, sheets), [plan, sheets]);
  const ladders = useMemo(() => ladderReports(plan, sheets), [plan, sheets]);
  const [chosen, setChosen] = useState<string>();
  const one = list.find((r) => r.id === chosen) ?? list.find((r) => r.why.use === 'led');
  const missing = list.flatMap((r) => (r.ohms === undefined && r.why.use === 'led' ? [r.why.led] : [])).filter(has('fitOhms'));
  const all = missing.map((led): Edit => ({ kind: 'series', ...splitKey(led.resistorAt), ohms: led.fitOhms }));
  const ledOhms = one?.why.use === 'led' ? (one.ohms ?? one.why.led.fitOhms) : undefined;
  return (
    <div className={styles.view}>
      <div className={styles.top}>
        <h2 className={styles.title}>Resistors</h2>
        <span className="quiet num">
          {counted(list.length, 'resistor')}
          {missing.length > 0 ? `, ${missing.length} missing` : ''}
        </span>
        {all.length > 1 && (
          <Button size="compact-sm" onClick={() => edit(all, `add ${counted(all.length, 'resistor')}`)}>
            Add all {all.length}
          </Button>
        )}
        <span className={styles.grow} />
        <ValuesOnHandFields onHand={plan.valuesOnHand} />
      </div>
      {list.length === 0 ? (
        <p className={clsx('quiet', styles.empty)}>
          No resistors needed yet. Connect an LED, add a pull-up or a voltage divider to see its value and colour bands here. The
          calculators below work without a plan.
        </p>
      ) : (
        <ResistorTable plan={plan} list={list} chosen={one?.id} onChoose={setChosen} />
      )}
      {one?.why.use === 'led' && ledOhms !== undefined && (
        <div className={styles.under}>
          <LoadLine led={one.why.led} ohms={ledOhms} />
        </div>
      )}
      {ladders.map((ladder) => (
        <LadderKeys key={`${ladder.placement} ${JSON.stringify(ladder.values)}`} plan={plan} ladder={ladder} />
      ))}
      <Calculators plan={plan} />
    </div>
  );
}
