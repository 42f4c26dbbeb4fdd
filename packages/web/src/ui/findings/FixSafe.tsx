import { Button } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import type { Finding } from '@roof-chart/core/checks/engine/check';
import { describeFix } from '@roof-chart/core/text/describe';
import type { Plan } from '@roof-chart/core/plan/plan';
import { counted } from '@roof-chart/core/quantity/format';
import { useState } from 'react';
import { useWorkbench } from '../../state/workbench';

const ENDS = {
  done: '',
  loop: ' Stopped: two fixes reversed each other.',
  ceiling: ' More remain; run it again.',
} as const;

/** All safe remedies in one undoable step, with what was done in words. */
export function FixSafe({ plan, findings }: { readonly plan: Plan; readonly findings: readonly Finding[] }) {
  const { sheets, workers, edit } = useWorkbench();
  const [busy, setBusy] = useState(false);
  const safe = findings.filter((f) => f.accepted === undefined && f.remedies.some((r) => r.grade === 'safe')).length;
  if (safe === 0) return null;
  const run = async () => {
    setBusy(true);
    const fix = await workers.ask((reviewer) => reviewer.fixSafe(plan));
    setBusy(false);
    if (fix.edits.length === 0 || !edit(fix.edits, `apply ${counted(fix.fixed.length, 'safe fix', 'safe fixes')}`)) return;
    const said = fix.fixed.map(({ finding, remedy }) => describeFix(plan, sheets, finding.code, remedy));
    notifications.show({ message: `Applied: ${said.join('; ')}.${ENDS[fix.end]} Undo reverts all of it.`, autoClose: 15_000 });
  };
  return (
    <Button size="compact-sm" fullWidth variant="default" mb={8} loading={busy} onClick={() => void run()}>
      Apply {counted(safe, 'safe fix', 'safe fixes')}
    </Button>
  );
}
