import { Modal } from '@mantine/core';
import { useAppSelector } from '../state/store';
import { SignIn } from './SignIn';
import { useWorkbench } from '../state/workbench';

/** The sign-in dialog over the open page when the session has ended; nothing is lost. */
export function SignedOut() {
  const signedOut = useAppSelector((state) => state.session.signedOut);
  const { saver } = useWorkbench();
  return (
    <Modal opened={signedOut} onClose={() => undefined} withCloseButton={false} title="Signed out" transitionProps={{ duration: 0 }}>
      <p className="quiet">Enter the server’s passphrase. Your edits are kept in this browser and saved after you sign in.</p>
      <SignIn onSignedIn={() => saver.retry()} />
    </Modal>
  );
}
