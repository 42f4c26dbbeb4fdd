import clsx from 'clsx';
import { TextInput, UnstyledButton } from '@mantine/core';
import { useState } from 'react';
import { PLAN_LIMITS } from '@roof-chart/core/plan/plan';
import styles from './PlanName.module.css';
import { useWorkbench } from '../state/workbench';

/** A name that turns into a field when clicked; Enter or leaving keeps it, Escape does not. */
export function EditableName({
  name,
  what,
  onRename,
  className,
}: {
  readonly name: string;
  readonly what: string;
  readonly onRename: (name: string) => void;
  readonly className?: string;
}) {
  const [draft, setDraft] = useState<string | null>(null);
  const keep = () => {
    const next = draft?.trim();
    setDraft(null);
    if (next && next !== name) onRename(next);
  };
  if (draft === null) {
    return (
      <UnstyledButton className={className} onClick={() => setDraft(name)} title={`Rename ${what}`} aria-label={`${name}: rename ${what}`}>
        {name}
      </UnstyledButton>
    );
  }
  return (
    <TextInput
      autoFocus
      aria-label={`Name of ${what}`}
      value={draft}
      maxLength={PLAN_LIMITS.nameLength}
      onChange={(event) => setDraft(event.currentTarget.value)}
      onBlur={keep}
      onFocus={(event) => event.currentTarget.select()}
      onKeyDown={(event) => {
        if (event.key === 'Enter') keep();
        if (event.key === 'Escape') setDraft(null);
      }}
    />
  );
}

export function PlanName({ name }: { readonly name: string }) {
  const { edit } = useWorkbench();
  return (
    <h1 className={styles.heading}>
      <EditableName
        name={name}
        what="the plan"
        className={clsx(styles.name)}
        onRename={(next) => edit([{ kind: 'rename-plan', name: next }])}
      />
    </h1>
  );
}
