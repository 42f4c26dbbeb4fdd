import { Button } from '@mantine/core';
import type { Reading } from './useReading';

/** Says when a pasted text takes long to read, with a way to stop it, or why it was not read. */
export function ReadingState({ reading }: { readonly reading: Reading<unknown> }) {
  if (reading.failure !== null) return <p role="alert">{reading.failure}</p>;
  if (!reading.isSlow) return null;
  return (
    <p role="status">
      Reading…{' '}
      <Button size="compact-xs" variant="default" onClick={reading.stop}>
        Stop
      </Button>
    </p>
  );
}
