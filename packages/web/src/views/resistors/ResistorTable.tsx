import clsx from 'clsx';
import { ActionIcon, Button, NativeSelect } from '@mantine/core';
import { IconChevronDown, IconChevronUp, IconX } from '@tabler/icons-react';
import type { PlanResistor } from '@roof-chart/core/electrics/reports/planResistors';
import { type Driver, DRIVER_KINDS, type Plan, splitKey } from '@roof-chart/core/plan/plan';
import { letterCode } from '@roof-chart/core/quantity/bands';
import { formatSi } from '@roof-chart/core/quantity/format';
import { useWorkbench } from '../../state/workbench';
import { Bands } from './Bands';
import styles from './Resistors.module.css';
import { namesOf, resistorEdit, stepped, purposeWords, whereWords } from './resistorRows';

interface RowProps {
  readonly plan: Plan;
  readonly one: PlanResistor;
  readonly chosen: boolean;
  readonly onChoose: () => void;
}

/** The marking code of a value; none if it has too many digits. */
function letters(ohms: number): string {
  try {
    return letterCode(ohms);
  } catch {
    return '';
  }
}

interface ValueCellProps extends Pick<RowProps, 'plan' | 'one'> {
  readonly where: string;
  readonly onSet: (ohms: number) => void;
}

/** The value with the steps to those beside it; of a missing resistor the one that fits. */
function ValueCell({ plan, one: { ohms, why }, where, onSet }: ValueCellProps) {
  const fit = why.use === 'led' ? why.led.fitOhms : why.use === 'current-set' ? why.driver.fitOhms : undefined;
  const step = (by: 1 | -1) => {
    const next = ohms === undefined ? undefined : stepped(plan, ohms, by);
    if (next !== undefined) onSet(next);
  };
  return (
    <td className={clsx(styles.number, ohms === undefined && styles.missing)}>
      {ohms === undefined ? (
        fit === undefined ? (
          'missing'
        ) : (
          <Button size="compact-xs" variant="outline" onClick={() => onSet(fit)}>
            Add {formatSi(fit, 'Ω')}
          </Button>
        )
      ) : (
        <span className={styles.value}>
          <span className="num">{formatSi(ohms, 'Ω')}</span>
          <ActionIcon size={24} aria-label={`${where}: next value down`} onClick={() => step(-1)}>
            <IconChevronDown size={13} />
          </ActionIcon>
          <ActionIcon size={24} aria-label={`${where}: next value up`} onClick={() => step(1)}>
            <IconChevronUp size={13} />
          </ActionIcon>
        </span>
      )}
    </td>
  );
}

function Row({ plan, one, chosen, onChoose }: RowProps) {
  const { sheets, edit } = useWorkbench();
  const where = whereWords(plan, sheets, one);
  const set = (ohms: number | null) => edit([resistorEdit(plan, one, ohms)]);
  const { ohms, key } = one;
  return (
    <tr className={chosen ? styles.chosen : undefined} onClick={onChoose}>
      <td className="num">{namesOf(plan, sheets, one).join(', ')}</td>
      <th scope="row">{where}</th>
      <td>
        {one.why.use === 'base' && key !== undefined && ohms !== undefined ? (
          <NativeSelect
            size="xs"
            aria-label={`Transistor at ${where}`}
            value={one.why.kind}
            data={DRIVER_KINDS.map((kind) => ({ value: kind, label: purposeWords({ ...one, why: { use: 'base', kind } }) }))}
            onChange={(event) => {
              const kind = event.currentTarget.value as Driver['kind'];
              edit([{ kind: 'driver', ...splitKey(key), driver: { kind, ohms } }]);
            }}
          />
        ) : (
          purposeWords(one)
        )}
      </td>
      <ValueCell plan={plan} one={one} where={where} onSet={set} />
      <td>{ohms !== undefined && <Bands ohms={ohms} />}</td>
      <td className="mono">{ohms === undefined ? '' : letters(ohms)}</td>
      <td className={clsx(styles.number, 'num')}>{one.exactOhms === undefined ? '' : formatSi(one.exactOhms, 'Ω')}</td>
      <td className={clsx(styles.number, 'num')}>{one.amps === undefined ? '' : formatSi(one.amps, 'A')}</td>
      <td className={clsx(styles.number, 'num')}>
        {one.watts === undefined ? '' : formatSi(one.watts, 'W')}
        {one.ratingWatts === undefined ? '' : ` → ${formatSi(one.ratingWatts, 'W')}`}
      </td>
      <td>
        {ohms !== undefined && (
          <ActionIcon size={24} aria-label={`Remove the resistor at ${where}`} onClick={() => set(null)}>
            <IconX size={13} />
          </ActionIcon>
        )}
      </td>
    </tr>
  );
}

/** Every resistor of the plan, and those that it lacks. */
export function ResistorTable({
  plan,
  list,
  chosen,
  onChoose,
}: {
  readonly plan: Plan;
  readonly list: readonly PlanResistor[];
  readonly chosen: string | undefined;
  readonly onChoose: (id: string) => void;
}) {
  return (
    <table className={styles.table}>
      <thead>
        <tr>
          <th scope="col">Name</th>
          <th scope="col">Location</th>
          <th scope="col">Function</th>
          <th scope="col" className={styles.valueHead}>
            Value
          </th>
          <th scope="col">Colour bands</th>
          <th scope="col">Code</th>
          <th scope="col" className={styles.number}>
            Exact value
          </th>
          <th scope="col" className={styles.number}>
            Current
          </th>
          <th scope="col" className={styles.number}>
            Dissipation → rating
          </th>
          <td />
        </tr>
      </thead>
      <tbody>
        {list.map((one) => (
          <Row key={one.id} plan={plan} one={one} chosen={one.id === chosen} onChoose={() => onChoose(one.id)} />
        ))}
      </tbody>
    </table>
  );
}
