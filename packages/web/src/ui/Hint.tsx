import { Tooltip } from '@mantine/core';
import type { ReactElement } from 'react';

interface HintProps {
  /** What is said; nothing where there is nothing to say. */
  readonly label: string | undefined;
  readonly children: ReactElement;
}

const EVENTS = { hover: true, focus: true, touch: false } as const;

/** Says more of a control in a sentence, under the pointer and with the focus: what a title says to the pointer alone. It is beside its
 *  control in the page, so that it belongs to the same part of it for those who listen. */
export function Hint({ label, children }: HintProps) {
  return (
    <Tooltip
      label={label}
      disabled={!label}
      openDelay={500}
      multiline
      w="max-content"
      fz={13}
      fw={400}
      maw={320}
      events={EVENTS}
      transitionProps={{ duration: 0 }}
      withinPortal={false}
      floatingStrategy="fixed"
    >
      {children}
    </Tooltip>
  );
}
