import { Button } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import type { Finding } from '@roof-chart/core/checks/check';
import { sayRemedy } from '@roof-chart/core/checks/say';
import type { Plan } from '@roof-chart/core/plan/plan';
import { useState } from 'react';
import { useWorkbench } from '../app/workbench';

const ENDS = {
  done: '',
  loop: ' Then two remedies began to undo each other, so it stopped there.',
  ceiling: ' There are more; run it again.',
} as const;

/** All safe remedies in one undoable step, with what was done in words. */
export function FixSafe({ plan, findings }: { readonly plan: Plan; readonly findings: readonly Finding[] }) {
  const { sheets, feed, edit } = useWorkbench();
  const [busy, setBusy] = useState(false);
  const safe = findings.filter((f) => f.accepted === undefined && f.remedies.some((r) => r.grade === 'safe')).length;
  if (safe === 0) return null;
  const run = async () => {
    setBusy(true);
    const fix = await feed.ask((reviewer) => reviewer.fixSafe(plan));
    setBusy(false);
    if (fix.edits.length === 0 || !edit(fix.edits, `fix ${fix.fixed.length} findings that were safe to fix`)) return;
    const said = fix.fixed.map(({ finding, remedy }) => sayRemedy(plan, sheets, finding.code, remedy));
    notifications.show({ message: `Done: ${said.join('; ')}.${ENDS[fix.end]} Undo takes all of it back.`, autoClose: 15_000 });
  };
  return (
    <Button size="compact-sm" fullWidth variant="default" mb={8} loading={busy} onClick={() => void run()}>
      Fix what is safe ({safe})
    </Button>
  );
}
