import { Button, NativeSelect } from '@mantine/core';
import { useState } from 'react';
import { TRANSISTOR_WORDS } from '@roof-chart/core/checks/fixes/transistors';
import type { CalcResult } from '@roof-chart/core/electrics/calculations/calculation';
import { planTerminals } from '@roof-chart/core/nets/terminals';
import type { Driver, Plan } from '@roof-chart/core/plan/plan';
import { PIN_ROLES } from '@roof-chart/core/sheets/roles';
import { partSheet } from '@roof-chart/core/sheets/sheetIndex';
import { terminalText } from '@roof-chart/core/text/names';
import { useWorkbench } from '../../state/workbench';
import { calcEdits, ENTRIES, ladderEdits, TRANSISTOR_KINDS } from './calcEntries';
import styles from './Resistors.module.css';

/** Resistors of keys, put into the plan. */
export function UseLadder({ plan, result }: { readonly plan: Plan; readonly result: CalcResult }) {
  const { sheets, edit } = useWorkbench();
  const ladders = plan.placements.filter((p) => partSheet(sheets, p.sheet)?.sheet.keys?.as === 'ladder');
  return (
    <div className={styles.row}>
      {ladders.map(({ id, name }) => {
        const edits = ladderEdits(result, id);
        return (
          edits && (
            <Button key={id} size="compact-sm" variant="outline" onClick={() => edit(edits, `resistors of ${name}`)}>
              Use them in {name}
            </Button>
          )
        );
      })}
    </div>
  );
}

/** What was calculated, put at a terminal of the plan. */
export function UseAtTerminal({ plan, id, result }: { readonly plan: Plan; readonly id: string; readonly result: CalcResult }) {
  const { sheets, edit } = useWorkbench();
  const [key, setKey] = useState('');
  const [kind, setKind] = useState<Driver['kind']>(id === 'transistor-gate' ? 'nmos' : 'npn');
  const entry = ENTRIES[id];
  const edits = key === '' ? undefined : calcEdits(id, result, key, kind);
  if (!entry || !calcEdits(id, result, 'a:b', kind)) return null;
  const kinds = TRANSISTOR_KINDS[id] ?? [];
  const terminals = planTerminals(plan, sheets).filter((t) => PIN_ROLES[t.terminal.role] && t.wire);
  return (
    <div className={styles.row}>
      <NativeSelect
        size="xs"
        aria-label="Terminal for this value"
        value={key}
        data={[{ value: '', label: 'Use at…' }, ...terminals.map((t) => ({ value: t.key, label: terminalText(plan, sheets, t.key) }))]}
        onChange={(event) => setKey(event.currentTarget.value)}
      />
      {kinds.length > 0 && (
        <NativeSelect
          size="xs"
          aria-label="Kind of transistor"
          value={kind}
          data={kinds.map((value) => ({ value, label: TRANSISTOR_WORDS[value] }))}
          onChange={(event) => setKind(event.currentTarget.value as Driver['kind'])}
        />
      )}
      <Button
        size="compact-sm"
        variant="outline"
        disabled={!edits}
        onClick={() => edits && edit(edits, `${entry} at ${terminalText(plan, sheets, key)}`)}
      >
        Add to the plan
      </Button>
    </div>
  );
}
