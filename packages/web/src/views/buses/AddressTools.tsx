import { Button, TextInput } from '@mantine/core';
import { useMemo, useState } from 'react';
import { listText } from '@roof-chart/core/text/names';
import type { Bus } from '@roof-chart/core/nets/buses';
import type { Plan } from '@roof-chart/core/plan/plan';
import { counted } from '@roof-chart/core/quantity/format';
import { clearAddresses } from '@roof-chart/core/review/clearAddresses';
import type { AddressRow } from '@roof-chart/core/review/i2cReport';
import { useWorkbench } from '../../state/workbench';
import { findAddress } from '@roof-chart/core/text/views/addressText';
import styles from './Buses.module.css';
import { nameOf } from '@roof-chart/core/text/memberName';

/** Who answers on an address, in either form; and all straps of the bus chosen at once where parts meet. */
export function AddressTools({
  plan,
  bus,
  rows,
  clashing,
}: {
  readonly plan: Plan;
  readonly bus: Bus;
  readonly rows: readonly AddressRow[];
  readonly clashing: boolean;
}) {
  const { sheets, edit } = useWorkbench();
  const [text, setText] = useState('');
  const cleared = useMemo(() => (clashing ? clearAddresses(plan, sheets, bus) : undefined), [clashing, plan, sheets, bus]);
  return (
    <div className={styles.finder}>
      <TextInput
        size="xs"
        label="Find an address"
        placeholder="0x68, or 0xD0 (8-bit form)"
        value={text}
        onChange={(event) => setText(event.currentTarget.value)}
      />
      {text.trim() !== '' && (
        <p role="status" className={styles.fact}>
          {findAddress(text, rows, (id) => nameOf(plan, id))}
        </p>
      )}
      {cleared?.ok && cleared.edits.length > 0 && (
        <Button
          size="compact-xs"
          variant="outline"
          onClick={() => edit(cleared.edits, `set the straps of ${counted(cleared.changes, 'part')} to resolve address conflicts`)}
        >
          Resolve address conflicts: set straps on {counted(cleared.changes, 'device')}
        </Button>
      )}
      {cleared && !cleared.ok && (
        <p className={styles.bad}>
          No combination of address straps separates {listText(cleared.stuck.map((id) => nameOf(plan, id)))} on one bus.
        </p>
      )}
      {text.trim() === '' && !clashing && <p className={styles.good}>No address conflicts; {formatFree(rows)} addresses are free.</p>}
    </div>
  );
}

/** Free addresses of the 112 that are not reserved. */
function formatFree(rows: readonly AddressRow[]): number {
  const taken = new Set(rows.flatMap((row) => [...row.now, ...row.also]));
  return Array.from({ length: 112 }, (_, at) => at + 8).filter((address) => !taken.has(address)).length;
}
