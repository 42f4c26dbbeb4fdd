import clsx from 'clsx';
import { Button, TextInput } from '@mantine/core';
import { type DragEvent, type FormEvent, useEffect, useMemo, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { boardFace } from '@roof-chart/core/faces/boardFace';
import { PLAN_LIMITS } from '@roof-chart/core/plan/plan';
import type { BoardSheet } from '@roof-chart/core/sheets/boardSheet';
import { failureWords, useCreatePlanMutation } from '../../state/api';
import { useWorkbench } from '../../state/workbench';
import { FacePicture } from '../../ui/face/Face';
import { BoardChoice } from './BoardChoice';
import { BoardGallery } from './BoardGallery';
import { EdgeLabels } from './EdgeLabels';
import { Everything } from './Everything';
import { GuidedLink } from './GuidedExample';
import { OpenFile, useOpenFile } from './OpenFile';
import { PlanList } from './PlanList';
import { SkipLink } from '../../ui/SkipLink';
import styles from './Plans.module.css';

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
    <form id={NEW_PLAN} tabIndex={-1} className={styles.newPlan} onSubmit={(event) => void submit(event)} aria-label="New plan">
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
      <GuidedLink />
    </form>
  );
}

/** Where the keyboard gets to past a long list of plans. */
const NEW_PLAN = 'new-plan';

/** The field that a choice in the gallery leads to. */
const NAME_FIELD = 'new-plan-name';

/** A plan file that is dropped anywhere on the page is opened. */
function useDroppedFile() {
  const open = useOpenFile();
  const [isOver, setOver] = useState(false);
  const hasFile = (event: DragEvent) => event.dataTransfer.types.includes('Files');
  return {
    isOver,
    handlers: {
      onDragOver: (event: DragEvent) => {
        if (!hasFile(event)) return;
        event.preventDefault();
        setOver(true);
      },
      onDragLeave: (event: DragEvent) => {
        if (!(event.relatedTarget instanceof Node) || !event.currentTarget.contains(event.relatedTarget)) setOver(false);
      },
      onDrop: (event: DragEvent) => {
        if (!hasFile(event)) return;
        event.preventDefault();
        setOver(false);
        const [file] = event.dataTransfer.files;
        if (file) void open(file);
      },
    },
  };
}

/** Recent plans, and the way to a new one: by its board, or from a file. */
export function PlansView() {
  const { sheets } = useWorkbench();
  const { isOver, handlers } = useDroppedFile();
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
  return (
    <div className={clsx(styles.page, isOver && styles.dropping)} {...handlers}>
      <header className={styles.top}>
        <SkipLink to={NEW_PLAN} label="Skip the list: new plan" />
        <h1>Roof Chart</h1>
        <p className="quiet">Plan every wire and check every level, address and current before you solder.</p>
        <Link to="/sheets" className={styles.sheetsLink}>
          Library of boards and parts
        </Link>
      </header>
      <main className={styles.columns}>
        <div className={styles.plans}>
          <PlanList />
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
