import type { SaveState as Saving } from '../state/documentSlice';
import { useAppSelector } from '../state/store';
import styles from './Frame.module.css';

const SAVE_WORDS: { readonly [S in Saving]: string } = {
  saved: 'Saved',
  saving: 'Saving',
  offline: 'Offline: kept in this browser',
  full: 'Server disk full: kept in this browser',
  'signed-out': 'Signed out: kept in this browser',
  choice: 'Not saved: choose a version',
};

/** Whether the open plan is on the server, or why it is not. */
export function SaveState() {
  const save = useAppSelector((state) => state.document.save);
  return (
    <span className={save === 'saved' || save === 'saving' ? styles.saved : styles.offline} role="status" data-testid="save-state">
      {SAVE_WORDS[save]}
    </span>
  );
}
