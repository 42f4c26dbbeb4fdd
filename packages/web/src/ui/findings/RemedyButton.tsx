import clsx from 'clsx';
import { Button, Popover } from '@mantine/core';
import { useState } from 'react';
import type { Finding, Remedy } from '@roof-chart/core/checks/engine/check';
import { describeFix } from '@roof-chart/core/text/describe';
import type { Edit } from '@roof-chart/core/plan/edit';
import type { PreviewResult } from '@roof-chart/core/review/previewEdits';
import type { Plan } from '@roof-chart/core/plan/plan';
import { useWorkbench } from '../../state/workbench';
import styles from './FindingsRail.module.css';
import { type PreviewText, previewText } from '@roof-chart/core/text/editPreviewText';

function Shown({ words }: { readonly words: PreviewText }) {
  const list = (title: string, items: readonly string[]) =>
    items.length > 0 && (
      <>
        <dt>{title}</dt>
        {items.slice(0, 6).map((item) => (
          <dd key={item}>{item}</dd>
        ))}
        {items.length > 6 && <dd>and {items.length - 6} more</dd>}
      </>
    );
  return (
    <dl className={styles.preview}>
      {list('Changes', words.changes)}
      {list('Solves', words.solved)}
      {words.caused.length > 0 ? list('New findings', words.caused) : <dt>No new findings</dt>}
    </dl>
  );
}

/** A change of the plan: what it would do is shown on hover and focus, before it is done. */
export function ChangeButton({ plan, edits, label }: { readonly plan: Plan; readonly edits: readonly Edit[]; readonly label: string }) {
  const { sheets, workers, edit } = useWorkbench();
  const [words, setWords] = useState<PreviewText | null>(null);
  const [open, setOpen] = useState(false);
  const show = () => {
    setOpen(true);
    void workers
      .ask<PreviewResult>((reviewer) => reviewer.preview(plan, edits))
      .then((result) => setWords(result.ok ? previewText(plan, sheets, result.preview) : null));
  };
  return (
    <Popover
      opened={open && words !== null}
      position="left"
      withArrow
      shadow="none"
      width={260}
      trapFocus={false}
      transitionProps={{ duration: 0 }}
    >
      <Popover.Target>
        <Button
          variant="outline"
          size="compact-xs"
          classNames={{ root: clsx(styles.remedy), label: clsx(styles.remedyLabel) }}
          aria-haspopup={undefined}
          onMouseEnter={show}
          onMouseLeave={() => setOpen(false)}
          onFocus={show}
          onBlur={() => setOpen(false)}
          onClick={() => edit(edits, label)}
        >
          {label}
        </Button>
      </Popover.Target>
      <Popover.Dropdown className={clsx(styles.dropdown)}>{words && <Shown words={words} />}</Popover.Dropdown>
    </Popover>
  );
}

/** A remedy of a finding. */
export function RemedyButton({ plan, finding, remedy }: { readonly plan: Plan; readonly finding: Finding; readonly remedy: Remedy }) {
  const { sheets } = useWorkbench();
  return <ChangeButton plan={plan} edits={remedy.edits} label={describeFix(plan, sheets, finding.code, remedy)} />;
}
