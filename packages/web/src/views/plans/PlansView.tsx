import { ActionIcon, Button, FileButton, TextInput } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { IconSearch, IconTrash } from '@tabler/icons-react';
import { type FormEvent, useEffect, useMemo, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { PLAN_LIMITS } from '@roof-chart/core/plan/plan';
import { counted } from '@roof-chart/core/quantity/format';
import { boardFace } from '@roof-chart/core/faces/boardFace';
import type { BoardSheet } from '@roof-chart/core/sheets/boardSheet';
import { download } from '../../ui/download';
import { FacePicture } from '../../ui/face/Face';
import { useWorkbench } from '../../state/workbench';
import type { PlanFileText } from '../../workers/planText';
import type { PlanSummary } from '@roof-chart/api/planList';
import {
  failureWords,
  useCreatePlanMutation,
  useDeletePlanMutation,
  useOpenPlanFileMutation,
  usePlansQuery,
  useRestorePlanMutation,
} from '../../state/api';
import { BoardChoice } from './BoardChoice';
import { BoardGallery } from './BoardGallery';
import { EdgeLabels } from './EdgeLabels';
import { Everything } from './Everything';
import styles from './Plans.module.css';
import { Thumb } from './Thumb';

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

/** The board that a new plan starts with. */
interface Choice {
  readonly boards: readonly BoardSheet[];
  readonly board: string | null;
  readonly onChoose: (board: string | null) => void;
}

function NewPlan({ boards, board, onChoose }: Choice) {
  const { sheets } = useWorkbench();
  const navigate = useNavigate();
  const [create, creating] = useCreatePlanMutation();
  const [name, setName] = useState('');
  const chosen = board ? sheets.boards.get(board)?.sheet : undefined;
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (!board) return;
    const result = await create({ name: name.trim() || 'New plan', board });
    if (result.data) void navigate(`/plans/${result.data.plan.id}/stock`);
  };
  return (
    <form className={styles.newPlan} onSubmit={(event) => void submit(event)} aria-label="New plan">
      <h2 className={styles.heading}>New plan</h2>
      <BoardChoice boards={boards} board={board} onChoose={onChoose} />
      {chosen ? (
        <>
          <div className={styles.chosenFace}>
            <FacePicture face={boardFace(chosen)} />
          </div>
          <EdgeLabels board={chosen} />
        </>
      ) : (
        <p className={styles.boardNote}>The board determines the available pins, buses and rails.</p>
      )}
      <TextInput
        label="Name"
        placeholder="New plan"
        id={NAME_FIELD}
        value={name}
        maxLength={PLAN_LIMITS.nameLength}
        onChange={(event) => setName(event.currentTarget.value)}
      />
      {creating.isError && (
        <p className={styles.error} role="alert">
          {failureWords(creating.error)}
        </p>
      )}
      <Button type="submit" size="sm" disabled={!board} loading={creating.isLoading}>
        Create plan
      </Button>
      <OpenFile />
    </form>
  );
}

/** The field that a choice in the gallery leads to. */
const NAME_FIELD = 'new-plan-name';

/** Opens a plan file: a plan with the sheets it carries. */
function OpenFile() {
  const navigate = useNavigate();
  const [open] = useOpenPlanFileMutation();
  const { feed } = useWorkbench();
  const take = async (file: File | null) => {
    if (!file) return;
    const tell = (message: string) => void notifications.show({ message, color: 'brick', autoClose: false });
    const text = await file.text();
    const rescued = await feed.read<PlanFileText>((reviewer) => reviewer.readPlanText(text)).catch((error: Error) => error.message);
    if (typeof rescued === 'string') return tell(`${file.name} could not be read: ${rescued} Nothing was opened.`);
    if (!rescued.ok) return tell(`${file.name}: ${rescued.fault}. Nothing was opened.`);
    const { leftovers } = rescued;
    const result = await open(rescued.document);
    if (result.error) return tell(`${file.name}: ${failureWords(result.error)}`);
    const { plan, kept } = result.data;
    const fresh = kept.filter((sheet) => sheet.how !== 'same').map((sheet) => sheet.id);
    if (fresh.length > 0) notifications.show({ message: `Sheets added to your library: ${fresh.join(', ')}.` });
    if (leftovers.length > 0) {
      const name = `${file.name.replace(/\.json$/, '')}-left-over.json`;
      download(name, leftovers);
      notifications.show({
        autoClose: false,
        message: `${counted(leftovers.length, 'entry', 'entries')} of ${file.name} could not be read and ${leftovers.length === 1 ? 'was' : 'were'} left out; the first is ${leftovers[0]!.path}: ${leftovers[0]!.fault}. The original content is saved as ${name}.`,
      });
    }
    void navigate(`/plans/${plan.id}/chart`);
  };
  return (
    <FileButton accept="application/json,.json" onChange={(file) => void take(file)} inputProps={{ 'aria-label': 'Plan file to open' }}>
      {(props) => (
        <Button variant="default" {...props}>
          Open plan file
        </Button>
      )}
    </FileButton>
  );
}

function PlanRow({ plan, onDelete }: { readonly plan: PlanSummary; readonly onDelete: (plan: PlanSummary) => void }) {
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
      </Link>
      <ActionIcon aria-label={`Delete ${plan.name}`} title="Delete" onClick={() => onDelete(plan)}>
        <IconTrash size={17} />
      </ActionIcon>
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

/** Recent plans, and the way to a new one. */
export function PlansView() {
  const plans = usePlansQuery(undefined, { refetchOnMountOrArgChange: true });
  const [query, setQuery] = useState('');
  const onDelete = useDelete();
  const { sheets } = useWorkbench();
  const boards = useMemo(
    () => [...sheets.boards.values()].map((one) => one.sheet).toSorted((a, b) => a.title.localeCompare(b.title)),
    [sheets],
  );
  const [board, setBoard] = useState<string | null>(null);
  const choose = (id: string) => {
    setBoard(id);
    const field = document.getElementById(NAME_FIELD);
    field?.focus({ preventScroll: true });
    field?.scrollIntoView({ block: 'nearest' });
  };
  useEffect(() => {
    document.title = 'Plans · Roof Chart';
  }, []);
  const all = plans.data?.plans ?? [];
  const shown = all.filter((plan) => plan.name.toLowerCase().includes(query.trim().toLowerCase()));
  return (
    <div className={styles.page}>
      <header className={styles.top}>
        <h1>Roof Chart</h1>
        <p className="quiet">Plan every wire and check every level, address and current before you solder.</p>
        <Link to="/sheets" className={styles.sheetsLink}>
          Library of boards and parts
        </Link>
      </header>
      <main className={styles.columns}>
        <div className={styles.plans}>
          <section aria-label="Plans">
            <div className={styles.listTop}>
              <h2 className={styles.heading}>Plans</h2>
              {all.length > 5 && (
                <TextInput
                  aria-label="Search plans"
                  placeholder="Search"
                  leftSection={<IconSearch size={14} />}
                  value={query}
                  onChange={(event) => setQuery(event.currentTarget.value)}
                />
              )}
            </div>
            {plans.isError && <p className={styles.error}>{failureWords(plans.error)}</p>}
            {plans.isSuccess && all.length === 0 && <p className="quiet">No plans yet. Choose your board on the right and create one.</p>}
            {all.length > 0 && shown.length === 0 && <p className="quiet">No plan matches “{query}”.</p>}
            <ul className={styles.list}>
              {shown.map((plan) => (
                <PlanRow key={plan.id} plan={plan} onDelete={(p) => void onDelete(p)} />
              ))}
            </ul>
            {plans.data && plans.data.total > all.length && (
              <p className="quiet">
                The {all.length} most recently changed plans are shown, of {plans.data.total}.
              </p>
            )}
          </section>
          <BoardGallery boards={boards} board={board} onChoose={choose} />
        </div>
        <div className={styles.side}>
          <NewPlan boards={boards} board={board} onChoose={setBoard} />
          <Everything />
        </div>
      </main>
    </div>
  );
}
