import { Button } from '@mantine/core';
import type { Reading } from './useReading';

/** Progress of reading a pasted text, with a stop button, or why it could not be read. */
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
