import clsx from 'clsx';
import { Button, NativeSelect, UnstyledButton } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { type Icon, IconArchive, IconArchiveOff, IconCopy, IconTrash } from '@tabler/icons-react';
import { useState } from 'react';
import { Link } from 'react-router';
import type { PlanSummary } from '@roof-chart/api/planList';
import type { PlanState } from '@roof-chart/core/outputs/planState';
import { PLAN_LIMITS } from '@roof-chart/core/plan/plan';
import { counted } from '@roof-chart/core/quantity/format';
import {
  failureWords,
  useArchivePlanMutation,
  useDeletePlanMutation,
  useOpenPlanFileMutation,
  usePlansQuery,
  useReadPlanMutation,
  useRestorePlanMutation,
} from '../../state/api';
import { useWorkbench } from '../../state/workbench';
import { SearchField } from '../../ui/SearchField';
import { GuidedIntroduction } from './GuidedExample';
import styles from './Plans.module.css';
import { Thumb } from './Thumb';
import { Hint } from '../../ui/Hint';

/** "today 14:05", "24 Nov", "24 Nov 2025": as short as it can be without doubt. */
function when(iso: string): string {
  const date = new Date(iso);
  const now = new Date();
  if (date.toDateString() === now.toDateString()) return `today ${date.toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' })}`;
  return date.toLocaleDateString([], {
    day: 'numeric',
    month: 'short',
    ...(date.getFullYear() === now.getFullYear() ? {} : { year: 'numeric' }),
  });
}

/** Findings and progress of a plan, as its own pages tell them. */
function State({ state: { wires, ticked, errors, warnings } }: { readonly state: PlanState }) {
  const found = [...(errors > 0 ? [counted(errors, 'error')] : []), ...(warnings > 0 ? [counted(warnings, 'warning')] : [])];
  return (
    <span className={clsx(styles.state, 'num')}>
      <span className={errors > 0 ? styles.withErrors : warnings > 0 ? styles.withWarnings : styles.withoutFindings}>
        {wires === 0 ? 'nothing wired' : found.length === 0 ? 'no errors' : found.join(', ')}
      </span>
      <span className="quiet">{wires > 0 && (ticked >= wires ? 'built' : `${ticked} of ${wires} wires built`)}</span>
      {wires > 0 && <progress className={styles.progress} value={ticked} max={wires} aria-hidden />}
    </span>
  );
}

interface ActionProps {
  readonly icon: Icon;
  readonly what: string;
  readonly title?: string | undefined;
  readonly plan: PlanSummary;
  readonly onAct: (plan: PlanSummary) => void;
}

/** One of the things that can be done with a plan in the list. */
function Action({ icon: Drawing, what, title, plan, onAct }: ActionProps) {
  return (
    <Hint label={title}>
      <UnstyledButton className={styles.action} aria-label={`${what} ${plan.name}`} onClick={() => onAct(plan)}>
        <Drawing size={15} aria-hidden /> {what}
      </UnstyledButton>
    </Hint>
  );
}

interface PlanRowProps {
  readonly plan: PlanSummary;
  readonly onDuplicate: (plan: PlanSummary) => void;
  readonly onArchive: (plan: PlanSummary) => void;
  readonly onDelete: (plan: PlanSummary) => void;
}

function PlanRow({ plan, onDuplicate, onArchive, onDelete }: PlanRowProps) {
  const { sheets } = useWorkbench();
  return (
    <li className={styles.row}>
      <Link to={`/plans/${plan.id}/chart`} className={styles.open}>
        <Thumb thumbnail={plan.thumbnail} />
        <span className={styles.words}>
          <strong className={styles.name}>{plan.name}</strong>
          <span className="quiet">{sheets.boards.get(plan.board)?.sheet.title ?? plan.board}</span>
          <span className="quiet num">
            {counted(plan.parts, 'part')}, changed {when(plan.updatedAt)}
          </span>
        </span>
        {plan.state && <State state={plan.state} />}
      </Link>
      <span className={styles.rowActions}>
        <Action icon={IconCopy} what="Duplicate" plan={plan} onAct={onDuplicate} />
        <Action
          icon={plan.archived ? IconArchiveOff : IconArchive}
          what={plan.archived ? 'Unarchive' : 'Archive'}
          title={plan.archived ? undefined : 'Out of this list, not deleted'}
          plan={plan}
          onAct={onArchive}
        />
        <Action icon={IconTrash} what="Delete" plan={plan} onAct={onDelete} />
      </span>
    </li>
  );
}

function useDelete(): (plan: PlanSummary) => Promise<void> {
  const [remove] = useDeletePlanMutation();
  const [restore] = useRestorePlanMutation();
  return async (plan) => {
    const result = await remove(plan.id);
    if (result.error) return void notifications.show({ message: failureWords(result.error), color: 'brick' });
    const id = `deleted-${plan.id}`;
    const undo = async () => {
      notifications.hide(id);
      const restored = await restore(plan.id);
      if (restored.error) notifications.show({ message: failureWords(restored.error), color: 'brick' });
    };
    notifications.show({
      id,
      autoClose: 20000,
      message: (
        <span className={styles.toast}>
          “{plan.name}” deleted.
          <Button variant="outline" onClick={() => void undo()}>
            Undo
          </Button>
        </span>
      ),
    });
  };
}

function useArchive(): (plan: PlanSummary) => Promise<void> {
  const [archive] = useArchivePlanMutation();
  return async ({ id, name, archived }) => {
    const result = await archive({ id, archived: !archived });
    const message = `“${name}” ${archived ? 'is listed again' : 'archived'}.`;
    notifications.show(result.error ? { message: failureWords(result.error), color: 'brick' } : { message });
  };
}

/** A copy of a plan as the server has it, without its history. */
function useDuplicate(): (plan: PlanSummary) => Promise<void> {
  const [read] = useReadPlanMutation();
  const [open] = useOpenPlanFileMutation();
  return async ({ id, name }) => {
    const found = await read(id);
    const copy = `${name} (copy)`.slice(0, PLAN_LIMITS.nameLength);
    const made = found.data ? await open({ ...found.data.plan, name: copy }) : found;
    if (made.error) notifications.show({ message: failureWords(made.error), color: 'brick' });
    else notifications.show({ message: `“${copy}” created.` });
  };
}

/** Time between two requests for states that are missing, in milliseconds. */
const STATES_MS = 1500;

const ORDERS = {
  changed: { label: 'last changed', compare: (a: PlanSummary, b: PlanSummary) => b.updatedAt.localeCompare(a.updatedAt) },
  name: { label: 'name', compare: (a: PlanSummary, b: PlanSummary) => a.name.localeCompare(b.name) },
  board: { label: 'board', compare: (a: PlanSummary, b: PlanSummary) => a.board.localeCompare(b.board) || a.name.localeCompare(b.name) },
} as const;
type Order = keyof typeof ORDERS;

function ListTools({
  query,
  onQuery,
  order,
  onOrder,
}: {
  readonly query: string;
  readonly onQuery: (query: string) => void;
  readonly order: Order;
  readonly onOrder: (order: Order) => void;
}) {
  return (
    <div className={styles.listTools}>
      <SearchField label="Search plans" placeholder="Search" value={query} onChange={onQuery} />
      <NativeSelect
        size="xs"
        aria-label="Sort by"
        value={order}
        data={Object.entries(ORDERS).map(([value, { label }]) => ({ value, label: `by ${label}` }))}
        onChange={(event) => onOrder(event.currentTarget.value as Order)}
      />
    </div>
  );
}

/** The plans, with search and order once there are several. */
export function PlanList() {
  const [isWaiting, setWaiting] = useState(false);
  // The server works out the states of many plans bit by bit; of a plan that misses a sheet there is none, ever.
  const plans = usePlansQuery(undefined, { refetchOnMountOrArgChange: true, pollingInterval: isWaiting ? STATES_MS : 0 });
  const known = plans.data?.plans.filter((plan) => plan.state).length ?? 0;
  const [seen, setSeen] = useState({ at: 0, known: -1 });
  if (plans.data && plans.fulfilledTimeStamp !== undefined && plans.fulfilledTimeStamp !== seen.at) {
    setSeen({ at: plans.fulfilledTimeStamp, known });
    // As long as each answer knows more.
    setWaiting(known < plans.data.plans.length && known > seen.known);
  }
  const [query, setQuery] = useState('');
  const [order, setOrder] = useState<Order>('changed');
  const onDelete = useDelete();
  const onDuplicate = useDuplicate();
  const onArchive = useArchive();
  const [showsArchived, setShowsArchived] = useState(false);
  const all = plans.data?.plans ?? [];
  const archived = all.filter((plan) => plan.archived).length;
  const shown = all
    .filter((plan) => (showsArchived && archived > 0) === (plan.archived ?? false))
    .filter((plan) => plan.name.toLowerCase().includes(query.trim().toLowerCase()))
    .toSorted(ORDERS[order].compare);
  return (
    <section aria-label="Plans">
      <div className={styles.listTop}>
        <h2 className={styles.heading}>Plans</h2>
        {all.length > 3 && <ListTools query={query} onQuery={setQuery} order={order} onOrder={setOrder} />}
      </div>
      {plans.isError && <p className={styles.error}>{failureWords(plans.error)}</p>}
      {plans.isSuccess && all.length === 0 && <GuidedIntroduction />}
      {all.length > 0 && shown.length === 0 && (
        <p className="quiet">{query.trim() === '' ? 'All plans are archived.' : `No plan matches “${query}”.`}</p>
      )}
      <ul className={styles.list}>
        {shown.map((plan) => (
          <PlanRow
            key={plan.id}
            plan={plan}
            onDuplicate={(p) => void onDuplicate(p)}
            onArchive={(p) => void onArchive(p)}
            onDelete={(p) => void onDelete(p)}
          />
        ))}
      </ul>
      {archived > 0 && (
        <Button variant="subtle" size="compact-sm" aria-pressed={showsArchived} onClick={() => setShowsArchived(!showsArchived)}>
          {showsArchived ? 'Back to the plans at work' : `Archived plans: ${archived}`}
        </Button>
      )}
      {plans.data && plans.data.total > all.length && (
        <p className="quiet">
          The {all.length} most recently changed plans are shown, of {plans.data.total}.
        </p>
      )}
    </section>
  );
}
