import { Tooltip } from '@mantine/core';
import type { ReactElement } from 'react';

interface HintProps {
  /** What is said; nothing where there is nothing to say. */
  readonly label: string | undefined;
  readonly children: ReactElement;
}

const EVENTS = { hover: true, focus: true, touch: false } as const;

/** Says more of a control in a sentence, under the pointer and with the focus: what a title says to the pointer alone. */
export function Hint({ label, children }: HintProps) {
  return (
    <Tooltip label={label} disabled={!label} openDelay={500} multiline maw={320} events={EVENTS} transitionProps={{ duration: 0 }}>
      {children}
    </Tooltip>
  );
}
