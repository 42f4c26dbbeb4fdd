import { Button, PasswordInput } from '@mantine/core';
import { type FormEvent, useState } from 'react';
import { api, failureWords, useSignInMutation } from '../state/api';
import { sessionActions } from '../state/sessionSlice';
import { useAppDispatch } from '../state/store';
import styles from './Message.module.css';

/** The sign-in form with the server's passphrase. */
export function SignIn({ onSignedIn }: { readonly onSignedIn?: () => void }) {
  const [signIn, signing] = useSignInMutation();
  const dispatch = useAppDispatch();
  const [passphrase, setPassphrase] = useState('');
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const result = await signIn(passphrase);
    if (result.error) return;
    dispatch(sessionActions.signedOutChanged(false));
    dispatch(api.util.invalidateTags(['plans', 'sheets', 'checkpoints', 'session']));
    onSignedIn?.();
  };
  return (
    <form className={styles.signIn} onSubmit={(event) => void submit(event)} aria-label="Sign in">
      <PasswordInput
        label="Passphrase of this server"
        autoFocus
        autoComplete="current-password"
        data-autofocus
        value={passphrase}
        maxLength={1000}
        onChange={(event) => setPassphrase(event.currentTarget.value)}
        error={signing.isError ? failureWords(signing.error) : undefined}
      />
      <Button type="submit" disabled={!passphrase} loading={signing.isLoading}>
        Sign in
      </Button>
    </form>
  );
}
