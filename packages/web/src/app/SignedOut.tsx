import { Modal } from '@mantine/core';
import { useAppSelector } from '../store/store';
import { SignIn } from './SignIn';
import { useWorkbench } from './workbench';

/** Over whatever is open, when the server asks for its passphrase again: nothing that was done is lost. */
export function SignedOut() {
  const signedOut = useAppSelector((state) => state.session.signedOut);
  const { saver } = useWorkbench();
  return (
    <Modal opened={signedOut} onClose={() => undefined} withCloseButton={false} title="Signed out" transitionProps={{ duration: 0 }}>
      <p className="quiet">The server asks for its passphrase. Your edits are kept in this browser and are sent when you have signed in.</p>
      <SignIn onSignedIn={() => saver.retry()} />
    </Modal>
  );
}
