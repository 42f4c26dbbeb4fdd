import clsx from 'clsx';
import { Menu, UnstyledButton, useComputedColorScheme, useMantineColorScheme } from '@mantine/core';
import { spotlight } from '@mantine/spotlight';
import { IconAlertTriangle, IconDots, IconHammer, IconLayoutGrid, IconPlugConnected, type TablerIcon } from '@tabler/icons-react';
import { type ReactNode } from 'react';
import { Link, NavLink } from 'react-router';
import { counted } from '@roof-chart/core/quantity/format';
import { selectFindingCounts, selectRedoLabel, selectSortedFindings, selectUndoLabel } from '../state/selectors';
import { useAppSelector } from '../state/store';
import { useWorkbench } from '../state/workbench';
import styles from './BottomBar.module.css';
import { PLAN_VIEWS } from './planViews';

interface BottomBarProps {
  readonly planId: string;
  readonly isOpen: boolean;
  /** Shows the findings over the view, or the view again. */
  readonly onFindings: (open: boolean) => void;
  readonly onVersions: () => void;
}

/** What is used at the bench, in reach of a thumb. */
const AT_THE_BENCH: readonly (readonly [string, TablerIcon])[] = [
  ['chart', IconLayoutGrid],
  ['build', IconHammer],
  ['bring-up', IconPlugConnected],
];

function Entry({ icon: Icon, children }: { readonly icon: TablerIcon; readonly children: ReactNode }) {
  return (
    <>
      <Icon size={20} aria-hidden />
      <span>{children}</span>
    </>
  );
}

function Findings({ isOpen, onFindings }: Pick<BottomBarProps, 'isOpen' | 'onFindings'>) {
  const { open } = useAppSelector(selectSortedFindings);
  const { clash: errors } = useAppSelector(selectFindingCounts);
  return (
    <UnstyledButton
      className={clsx(styles.entry, isOpen && styles.on)}
      aria-pressed={isOpen}
      aria-label={`Findings: ${open.length === 0 ? 'none' : `${counted(open.length, 'finding')}, ${counted(errors, 'error')}`}`}
      onClick={() => onFindings(!isOpen)}
    >
      <Entry icon={IconAlertTriangle}>Findings</Entry>
      {open.length > 0 && <span className={clsx(styles.count, errors > 0 && styles.withErrors)}>{open.length}</span>}
    </UnstyledButton>
  );
}

/** The other views, and what the header has on wider screens. */
function More({ planId, onFindings, onVersions }: Omit<BottomBarProps, 'isOpen'>) {
  const { undo, redo } = useWorkbench();
  const past = useAppSelector(selectUndoLabel);
  const future = useAppSelector(selectRedoLabel);
  const { setColorScheme } = useMantineColorScheme();
  const next = useComputedColorScheme('light') === 'dark' ? 'light' : 'dark';
  const views = PLAN_VIEWS.flatMap((view) => ('label' in view && !AT_THE_BENCH.some(([path]) => path === view.path) ? [view] : []));
  return (
    <Menu position="top-end" width={240} transitionProps={{ duration: 0 }}>
      <Menu.Target>
        <UnstyledButton className={styles.entry}>
          <Entry icon={IconDots}>More</Entry>
        </UnstyledButton>
      </Menu.Target>
      <Menu.Dropdown className={clsx(styles.menu)}>
        {views.map((view) => (
          <Menu.Item key={view.path} component={Link} to={`/plans/${planId}/${view.path}`} onClick={() => onFindings(false)}>
            {view.label}
          </Menu.Item>
        ))}
        <Menu.Item component={Link} to="/sheets">
          Library
        </Menu.Item>
        <Menu.Item component={Link} to="/">
          All plans
        </Menu.Item>
        <Menu.Divider />
        <Menu.Item disabled={!past} onClick={undo}>
          Undo{past ? `: ${past}` : ''}
        </Menu.Item>
        <Menu.Item disabled={!future} onClick={redo}>
          Redo{future ? `: ${future}` : ''}
        </Menu.Item>
        <Menu.Item onClick={onVersions}>Versions</Menu.Item>
        <Menu.Item onClick={spotlight.open}>Search commands, parts, pins…</Menu.Item>
        <Menu.Item onClick={() => setColorScheme(next)}>Use the {next} theme</Menu.Item>
      </Menu.Dropdown>
    </Menu>
  );
}

/** The navigation of a phone, in place of the list of views, the header’s tools and the rail. */
export function BottomBar({ planId, isOpen, onFindings, onVersions }: BottomBarProps) {
  return (
    <nav className={styles.bar} aria-label="At the bench">
      {AT_THE_BENCH.map(([path, icon]) => (
        <NavLink
          key={path}
          to={`/plans/${planId}/${path}`}
          className={({ isActive }) => clsx(styles.entry, isActive && !isOpen && styles.on)}
          onClick={() => onFindings(false)}
        >
          <Entry icon={icon}>{PLAN_VIEWS.flatMap((view) => (view.path === path && 'label' in view ? [view.label] : []))[0]}</Entry>
        </NavLink>
      ))}
      <Findings isOpen={isOpen} onFindings={onFindings} />
      <More planId={planId} onFindings={onFindings} onVersions={onVersions} />
    </nav>
  );
}
