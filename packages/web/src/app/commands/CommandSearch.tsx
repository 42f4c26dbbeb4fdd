import { useMantineColorScheme, useComputedColorScheme } from '@mantine/core';
import { Spotlight, type SpotlightActionData, type SpotlightActionGroupData } from '@mantine/spotlight';
import { memo, useMemo, useState } from 'react';
import { useStore } from 'react-redux';
import { useNavigate } from 'react-router';
import { planDocument } from '@roof-chart/core/plan/planFile';
import type { Edit } from '@roof-chart/core/plan/edit';
import { splitKey } from '@roof-chart/core/plan/plan';
import { selectReviewed } from '../../state/selectors';
import { useWorkbench } from '../../state/workbench';
import { sessionActions } from '../../state/sessionSlice';
import { download } from '../../ui/download';
import { type RootState, useAppDispatch, useAppSelector } from '../../state/store';
import { PLAN_VIEWS } from '../planViews';
import { placeGroups } from './places';
import { SYNONYMS } from './synonyms';

interface CommandSearchProps {
  readonly planId: string;
  readonly onVersions: () => void;
  readonly onShortcuts: () => void;
}

type Group = SpotlightActionGroupData;

function useActions({ planId, onVersions, onShortcuts }: CommandSearchProps): Group {
  const { undo, redo, edit, sheets } = useWorkbench();
  const store = useStore<RootState>();
  const save = () => {
    const plan = store.getState().document.plan;
    if (plan) download(`${plan.id}.json`, planDocument(plan, sheets));
  };
  const dispatch = useAppDispatch();
  const auto = useAppSelector((state) => state.session.auto);
  const lockAll = (locked: boolean) => () => {
    const plan = store.getState().document.plan;
    const soldered = new Set(plan?.placements.filter((p) => p.onBoard).map((p) => p.id));
    const edits = Object.entries(plan?.wires ?? {}).flatMap(([key, wire]): Edit[] =>
      wire.locked === locked || soldered.has(splitKey(key).placement) ? [] : [{ kind: 'lock', ...splitKey(key), locked }],
    );
    if (edits.length > 0) edit(edits, locked ? 'lock all wires' : 'unlock all wires');
  };
  const navigate = useNavigate();
  const { setColorScheme } = useMantineColorScheme();
  const next = useComputedColorScheme('light') === 'dark' ? 'light' : 'dark';
  const go = (view: string) => () => void navigate(`/plans/${planId}/${view}`);
  const action = (id: string, label: string, onClick: () => void, keywords = SYNONYMS[id] ?? []): SpotlightActionData => ({
    id,
    label,
    onClick,
    keywords: [...keywords],
  });
  return {
    group: 'Commands',
    actions: [
      ...PLAN_VIEWS.flatMap((view) => view.commands).map(({ id, label, to, keywords }) => action(id, label, go(to), keywords)),
      action('auto', auto ? 'Stop assigning pins after every change' : 'Assign pins after every change', () =>
        dispatch(sessionActions.autoChosen(!auto)),
      ),
      action('lock-all', 'Lock all wires', lockAll(true)),
      action('unlock-all', 'Unlock all wires', lockAll(false)),
      action('plans', 'Go to Plans', () => void navigate('/')),
      action('library', 'Open the Library of boards and parts', () => void navigate('/sheets')),
      action('undo', 'Undo', undo),
      action('redo', 'Redo', redo),
      action('versions', 'Versions: save, compare, restore', onVersions),
      action('theme', `Use the ${next} theme`, () => setColorScheme(next)),
      action('keys', 'Keyboard shortcuts', onShortcuts),
      action('download', 'Download the plan file, with its sheets', save),
      action('print', 'Print this view', () => window.print()),
    ],
  };
}

/** Places of the plan as actions; made only while the search is open, because there may be hundreds. */
function usePlaces(opened: boolean): readonly Group[] {
  const plan = useAppSelector((state) => (opened ? state.document.plan : null));
  const { sheets, edit } = useWorkbench();
  const reviewed = useAppSelector(selectReviewed);
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  return useMemo(() => {
    if (!plan) return [];
    const open = (path: string) => void navigate(`/plans/${plan.id}/${path}`);
    return placeGroups({
      plan,
      sheets,
      reviewed,
      edit,
      open,
      show: (focus) => {
        dispatch(sessionActions.scopeChosen('all'));
        dispatch(sessionActions.focused(focus));
        open('chart');
      },
    });
  }, [plan, sheets, reviewed, dispatch, navigate, edit]);
}

/** Ctrl/Cmd-K: everything that can be done, and every part, pin and finding, by typing. */
export const CommandSearch = memo(function CommandSearch(props: CommandSearchProps) {
  const [opened, setOpened] = useState(false);
  const actions = useActions(props);
  const places = usePlaces(opened);
  return (
    <Spotlight
      actions={[actions, ...places]}
      attributes={{ content: { 'aria-label': 'Command search' } }}
      shortcut="mod + K"
      onSpotlightOpen={() => setOpened(true)}
      onSpotlightClose={() => setOpened(false)}
      limit={12}

      overlayProps={{ blur: 0, backgroundOpacity: 0.3 }}
      scrollable
      maxHeight={420}
      transitionProps={{ duration: 0 }}
      nothingFound="No match. Try a part, a pin or an action."
      searchProps={{ placeholder: 'Search commands, parts, pins…', 'aria-label': 'Search commands, parts, pins and findings' }}
    />
  );
});
