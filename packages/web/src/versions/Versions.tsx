import { Button, Modal, Tabs, TextInput } from '@mantine/core';
import { type FormEvent, useState } from 'react';
import { diffPlans } from '@roof-chart/core/plan/diffPlans';
import { PLAN_LIMITS, type Plan } from '@roof-chart/core/plan/plan';
import { defaultStrap } from '@roof-chart/core/sheets/defaultStrap';
import { useWorkbench } from '../app/workbench';
import { failureWords, useCheckpointsQuery, useKeepCheckpointMutation, useLazyCheckpointQuery } from '../store/api';
import { useAppSelector } from '../store/store';
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
        label="Keep the plan as it is now, under a name"
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
        title={unsaved ? 'Waits until the plan is saved' : undefined}
      >
        Keep
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
        <Button size="compact-xs" aria-label={`Go back to ${name}`} onClick={() => edit(edits, `go back to “${name}”`)}>
          Go back to this version
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
        <p className="quiet">No version kept yet. Keep one before a larger change; you can compare and go back at any time.</p>
      )}
      <ul className={styles.list}>
        {list.data?.checkpoints.map((c) => (
          <Version key={c.id} plan={plan} id={c.id} name={c.name} at={c.at} />
        ))}
      </ul>
    </>
  );
}

/** Named versions of the plan, and its history: keep one, compare, go back (which Undo takes back, too). */
export function Versions({ plan, onClose }: { readonly plan: Plan; readonly onClose: () => void }) {
  return (
    <Modal opened onClose={onClose} title="Versions and history" size="lg" transitionProps={{ duration: 0 }}>
      <Tabs defaultValue="versions" keepMounted={false}>
        <Tabs.List>
          <Tabs.Tab value="versions">Kept versions</Tabs.Tab>
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
