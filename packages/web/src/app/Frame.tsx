import clsx from 'clsx';
import { LEVELS } from '@roof-chart/core/checks/engine/check';
import { LEVEL_TEXT } from '@roof-chart/core/text/names';
import { counted } from '@roof-chart/core/quantity/format';
import { boardSheet } from '@roof-chart/core/sheets/sheetIndex';
import { ActionIcon, Button, UnstyledButton, useComputedColorScheme, useMantineColorScheme } from '@mantine/core';
import { useHotkeys } from '@mantine/hooks';
import { spotlight } from '@mantine/spotlight';
import { IconArrowBackUp, IconArrowForwardUp, IconHistory, IconMoon, IconSun } from '@tabler/icons-react';
import { lazy, memo, type ReactNode, Suspense, useCallback, useEffect, useState } from 'react';
import { Link, NavLink } from 'react-router';
import commands from './commands/commands.module.css';
import { ShortcutList } from './commands/ShortcutList';
import { findingView } from '../ui/findings/findingView';
import railStyles from '../ui/findings/FindingsRail.module.css';
import { selectRedoLabel, selectSortedFindings, selectUndoLabel } from '../state/selectors';
import { useAppSelector } from '../state/store';
import { BottomBar } from './BottomBar';
import styles from './Frame.module.css';
import { Guide } from './Guide';
import { isKeptOffline } from './offline';
import { Ledgers } from './Ledgers';
import { awaited, loaded } from './loaded';
import { PLAN_VIEWS } from './planViews';
import { PlanName } from '../ui/PlanName';
import { SkipLink } from '../ui/SkipLink';
import { SaveState } from './SaveState';
import { Steps } from './Steps';
import { useWorkbench } from '../state/workbench';
import { Hint } from '../ui/Hint';

// The texts of all checks come with these: the Chart is painted before them.
const rail = loaded(import('../ui/findings/FindingsRail'));
const search = loaded(import('./commands/CommandSearch'));
const FindingsRail = lazy(() => awaited(async () => (await rail).FindingsRail));
const CommandSearch = lazy(() => awaited(async () => (await search).CommandSearch));
const loadVersions = async () => (await loaded(import('./versions/Versions'))).Versions;
const Versions = lazy(() => awaited(loadVersions));

/** Undo and redo by keyboard, everywhere but in text fields, which have their own. */
function useUndoKeys(): void {
  const { undo, redo } = useWorkbench();
  useHotkeys([
    ['mod+Z', () => undo()],
    ['mod+shift+Z', () => redo()],
    ['mod+Y', () => redo()],
  ]);
}

function ThemeSwitch() {
  const { setColorScheme } = useMantineColorScheme();
  const scheme = useComputedColorScheme('light');
  const next = scheme === 'dark' ? 'light' : 'dark';
  return (
    <Hint label={`Use the ${next} theme`}>
      <ActionIcon c="var(--ink)" aria-label={`Use the ${next} theme`} onClick={() => setColorScheme(next)}>
        {scheme === 'dark' ? <IconSun size={17} /> : <IconMoon size={17} />}
      </ActionIcon>
    </Hint>
  );
}

function UndoButtons() {
  const { undo, redo } = useWorkbench();
  const past = useAppSelector(selectUndoLabel);
  const future = useAppSelector(selectRedoLabel);
  return (
    <div className={styles.undo}>
      <Hint label={past && `Undo: ${past}`}>
        <Button
          variant="subtle"
          c={past ? 'var(--ink)' : undefined}
          disabled={!past}
          onClick={undo}
          leftSection={<IconArrowBackUp size={16} />}
        >
          Undo
        </Button>
      </Hint>
      <Hint label={future && `Redo: ${future}`}>
        <Button
          variant="subtle"
          c={future ? 'var(--ink)' : undefined}
          disabled={!future}
          onClick={redo}
          leftSection={<IconArrowForwardUp size={16} />}
        >
          Redo
        </Button>
      </Hint>
    </div>
  );
}

/** The count of findings alone, so that a new review draws nothing else of the navigation. */
function FindingCount({ view }: { readonly view: string }) {
  const { open } = useAppSelector(selectSortedFindings);
  const found = open.filter((f) => findingView(f).split('/')[0] === view);
  if (found.length === 0) return null;
  const levels = LEVELS.flatMap((level) => {
    const count = found.filter((f) => f.level === level).length;
    return count > 0 ? [counted(count, LEVEL_TEXT[level])] : [];
  }).join(', ');
  return (
    <span className={clsx(styles.count, found.some((f) => f.level === 'clash') && styles.withErrors)} title={levels}>
      <span aria-hidden>{found.length}</span>
      <span className={styles.hidden}>{levels}</span>
    </span>
  );
}

const NAVIGATION = PLAN_VIEWS.filter((view) => 'label' in view);

const Views = memo(function Views({ planId }: { readonly planId: string }) {
  return (
    <nav className={styles.nav} aria-label="Views">
      <Link to="/" className={styles.back}>
        ← Plans
      </Link>
      {NAVIGATION.map((view) => (
        <NavLink
          key={view.path}
          to={`/plans/${planId}/${view.path}`}
          className={({ isActive }) => clsx(styles.view, isActive && styles.on)}
        >
          {view.label}
          <FindingCount view={view.path} />
        </NavLink>
      ))}
      <NavLink to="/sheets" className={clsx(styles.view)}>
        Library
      </NavLink>
      <Steps />
    </nav>
  );
});

/** What in the header no edit changes. */
const HeaderTools = memo(function HeaderTools({ onVersions }: { readonly onVersions: () => void }) {
  return (
    <>
      <UnstyledButton className={commands.search} onClick={spotlight.open}>
        Search commands, parts, pins… <span className="mono">Ctrl K</span>
      </UnstyledButton>
      <Hint label="Save, compare and restore versions of this plan">
        <UnstyledButton className={styles.versions} onClick={onVersions}>
          <IconHistory size={17} aria-hidden /> Versions
        </UnstyledButton>
      </Hint>
      <ThemeSwitch />
    </>
  );
});

/** "?" opens the list of shortcuts, except while typing; with or without Shift, as the keyboard has it. */
const useHelpKey = (open: () => void): void =>
  useHotkeys([
    ['?', open],
    ['shift+?', open],
  ]);

function BoardTitle() {
  const { sheets } = useWorkbench();
  const board = useAppSelector((state) => state.document.plan?.board);
  return <span className={styles.board}>{board && boardSheet(sheets, board)?.sheet.title}</span>;
}

function Rail() {
  const parts = useAppSelector((state) => state.document.plan?.placements.length ?? 0);
  return (
    <Suspense fallback={<aside className={railStyles.rail} aria-label="Findings" />}>
      <FindingsRail parts={parts} />
    </Suspense>
  );
}

async function loadViews(): Promise<void> {
  if (await isKeptOffline()) return;
  await Promise.allSettled([...PLAN_VIEWS.map((view) => view.load()), loadVersions()]);
}

/** Where the browser does not keep the application, loads the code of every view soon after the first is shown: changing to another needs
 *  no server then. */
function useLoadedViews(): void {
  useEffect(() => {
    const timer = setTimeout(() => void loadViews(), 1500);
    return () => clearTimeout(timer);
  }, []);
}

const VIEW = 'view';

/** The frame around every view of a plan. Its parts ask for what they show: an edit draws those alone that it changes. */
export const Frame = memo(function Frame({ planId, children }: { readonly planId: string; readonly children: ReactNode }) {
  useUndoKeys();
  useLoadedViews();
  const name = useAppSelector((state) => state.document.plan?.name ?? '');
  // On a phone the findings lie over the view, at the press of a button.
  const [hasFindings, setFindings] = useState(false);
  const [dialog, setDialog] = useState<'versions' | 'keys' | null>(null);
  const openKeys = useCallback(() => setDialog('keys'), []);
  const openVersions = useCallback(() => setDialog('versions'), []);
  useHelpKey(openKeys);
  useEffect(() => {
    document.title = `${name} · Roof Chart`;
  }, [name]);
  return (
    <div className={clsx(styles.frame, hasFindings && styles.withFindings)}>
      <header className={styles.header}>
        <SkipLink to={VIEW} label="Skip to the view" />
        <PlanName name={name} />
        <BoardTitle />
        <span className={styles.space} />
        <UndoButtons />
        <HeaderTools onVersions={openVersions} />
        <SaveState />
      </header>
      <Views planId={planId} />
      <main id={VIEW} tabIndex={-1} className={styles.main}>
        <Guide />
        <div className={styles.room}>{children}</div>
      </main>
      <Rail />
      <Ledgers />
      <BottomBar planId={planId} isOpen={hasFindings} onFindings={setFindings} onVersions={openVersions} />
      <Suspense fallback={null}>
        <CommandSearch planId={planId} onVersions={openVersions} onShortcuts={openKeys} />
      </Suspense>
      {dialog === 'versions' && <PlanVersions onClose={() => setDialog(null)} />}
      {dialog === 'keys' && <ShortcutList onClose={() => setDialog(null)} />}
    </div>
  );
});

function PlanVersions({ onClose }: { readonly onClose: () => void }) {
  const plan = useAppSelector((state) => state.document.plan);
  return <Suspense fallback={null}>{plan && <Versions plan={plan} onClose={onClose} />}</Suspense>;
}
