import { Button, FileButton } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { counted } from '@roof-chart/core/quantity/format';
import type { ArchiveReport } from '@roof-chart/api/archiveReport';
import { failureWords, useSessionQuery, useSignOutMutation, useTakeArchiveMutation } from '../../state/api';
import { forgetServerCache } from '../../workers/keepOffline';
import { sessionActions } from '../../state/sessionSlice';
import { useAppDispatch } from '../../state/store';
import styles from './Plans.module.css';

const MOST_NAMED = 3;

/** The result of an archive import, in words. */
function reportText({ plans, versions, sheets, same, skipped }: ArchiveReport): string {
  const taken = `${counted(plans, 'plan')} imported, ${counted(versions, 'saved version')}, ${counted(sheets, 'sheet')}; ${same} unchanged.`;
  if (skipped.length === 0) return taken;
  const named = skipped.slice(0, MOST_NAMED).map(({ path, fault }) => `${path} (${fault})`);
  const more = skipped.length > MOST_NAMED ? ` and ${skipped.length - MOST_NAMED} more` : '';
  return `${taken} Skipped: ${named.join('; ')}${more}.`;
}

function TakeArchive() {
  const [take, taking] = useTakeArchiveMutation();
  const onFile = async (file: File | null) => {
    if (!file) return;
    const result = await take(file);
    if (result.error)
      return void notifications.show({ message: `${file.name}: ${failureWords(result.error)}`, color: 'brick', autoClose: false });
    notifications.show({ message: reportText(result.data), autoClose: false });
  };
  return (
    <FileButton accept="application/zip,.zip" onChange={(file) => void onFile(file)} inputProps={{ 'aria-label': 'Archive to import' }}>
      {(props) => (
        <Button variant="default" size="xs" loading={taking.isLoading} {...props}>
          Import archive
        </Button>
      )}
    </FileButton>
  );
}

function SignOut() {
  const session = useSessionQuery();
  const [signOut] = useSignOutMutation();
  const dispatch = useAppDispatch();
  if (!session.data?.required) return null;
  const leave = async () => {
    const result = await signOut();
    if (result.error) notifications.show({ message: failureWords(result.error), color: 'brick' });
    // Nothing of the plans stays in the page, and no list of them in the browser.
    else {
      await forgetServerCache();
      location.assign('/');
    }
    dispatch(sessionActions.signedOutChanged(false));
  };
  return (
    <Button variant="default" size="xs" onClick={() => void leave()}>
      Sign out
    </Button>
  );
}

/** Everything that the server keeps, out as one file and in again. */
export function Everything() {
  return (
    <section className={styles.everything} aria-label="Backup">
      <h2 className={styles.heading}>Backup</h2>
      <p className="quiet">
        All plans, saved versions and your own sheets as JSON files in a ZIP archive. The server also makes a backup every day.
      </p>
      <div className={styles.everythingTools}>
        <Button component="a" href="/api/archive" download variant="default" size="xs">
          Export all
        </Button>
        <TakeArchive />
        <SignOut />
      </div>
    </section>
  );
}
