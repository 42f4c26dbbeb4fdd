import { Button, Modal, Tabs, TextInput } from '@mantine/core';
import { type FormEvent, useState } from 'react';
import { diffPlans } from '@roof-chart/core/plan/diffPlans';
import { PLAN_LIMITS, type Plan } from '@roof-chart/core/plan/plan';
import { defaultStrap } from '@roof-chart/core/sheets/defaultStrap';
import { useWorkbench } from '../../state/workbench';
import { failureWords, useCheckpointsQuery, useKeepCheckpointMutation, useLazyCheckpointQuery } from '../../state/api';
import { useAppSelector } from '../../state/store';
import { History } from './History';
import { PlanDifference } from './PlanDifference';
import styles from './Versions.module.css';

function KeepForm({ plan }: { readonly plan: Plan }) {
  const [keep, keeping] = useKeepCheckpointMutation();
  const unsaved = useAppSelector((state) => state.document.save !== 'saved');
  const [name, setName] = useState('');
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const result = await keep({ plan: plan.id, name: name.trim() });
    if (result.data) setName('');
  };
  return (
    <form className={styles.keep} onSubmit={(event) => void submit(event)}>
      <TextInput
        label="Save the current plan as a version"
        placeholder="Before the rewiring"
        value={name}
        maxLength={PLAN_LIMITS.nameLength}
        onChange={(event) => setName(event.currentTarget.value)}
        error={keeping.isError ? failureWords(keeping.error) : undefined}
      />
      <Button
        type="submit"
        size="xs"
        disabled={!name.trim() || unsaved}
        loading={keeping.isLoading}
        title={unsaved ? 'Available when the plan is saved' : undefined}
      >
        {' '}
        Save version{' '}
      </Button>
    </form>
  );
}

function Version({ plan, id, name, at }: { readonly plan: Plan; readonly id: string; readonly name: string; readonly at: string }) {
  const { sheets, edit } = useWorkbench();
  const [load, loaded] = useLazyCheckpointQuery();
  const kept = loaded.data?.plan;
  const edits = kept ? diffPlans(plan, kept, (part, strap) => defaultStrap(sheets, part, strap)) : [];
  return (
    <li className={styles.version}>
      <div className={styles.line}>
        <span className={styles.name}>{name}</span>
        <time className="quiet" dateTime={at}>
          {new Date(at).toLocaleString()}
        </time>
        <Button
          size="compact-xs"
          variant="default"
          aria-label={`Compare with ${name}`}
          loading={loaded.isFetching}
          onClick={() => void load({ plan: plan.id, id })}
        >
          Compare
        </Button>
      </div>
      {loaded.isError && <p className={styles.error}>{failureWords(loaded.error)}</p>}
      {kept && <PlanDifference plan={plan} kept={kept} />}
      {kept && edits.length > 0 && (
        <Button size="compact-xs" aria-label={`Restore ${name}`} onClick={() => edit(edits, `restore “${name}”`)}>
          Restore this version
        </Button>
      )}
    </li>
  );
}

function KeptVersions({ plan }: { readonly plan: Plan }) {
  const list = useCheckpointsQuery(plan.id);
  return (
    <>
      <KeepForm plan={plan} />
      {list.isError && <p className={styles.error}>{failureWords(list.error)}</p>}
      {list.data?.checkpoints.length === 0 && (
        <p className="quiet">No saved versions yet. Save one before a large change; you can compare and restore it at any time.</p>
      )}
      <ul className={styles.list}>
        {list.data?.checkpoints.map((c) => (
          <Version key={c.id} plan={plan} id={c.id} name={c.name} at={c.at} />
        ))}
      </ul>
    </>
  );
}

/** Saved versions of the plan and its history: save, compare, restore (which Undo reverses). */
export function Versions({ plan, onClose }: { readonly plan: Plan; readonly onClose: () => void }) {
  return (
    <Modal opened onClose={onClose} title="Versions and history" size="lg" transitionProps={{ duration: 0 }}>
      <Tabs defaultValue="versions" keepMounted={false}>
        <Tabs.List>
          <Tabs.Tab value="versions">Saved versions</Tabs.Tab>
          <Tabs.Tab value="history">History</Tabs.Tab>
        </Tabs.List>
        <Tabs.Panel value="versions" pt="sm">
          <KeptVersions plan={plan} />
        </Tabs.Panel>
        <Tabs.Panel value="history" pt="sm">
          <History planId={plan.id} />
        </Tabs.Panel>
      </Tabs>
    </Modal>
  );
}
