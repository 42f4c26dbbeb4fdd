import { Anchor, Button } from '@mantine/core';
import type { ReactNode } from 'react';
import styles from './Message.module.css';

interface MessageProps {
  readonly title: string;
  readonly children?: ReactNode;
  readonly action?: { readonly label: string; readonly run: () => void } | { readonly label: string; readonly href: string };
}

/** A full-page message with the next action. */
export function Message({ title, children, action }: MessageProps) {
  return (
    <main className={styles.page}>
      <h1 className={styles.title}>{title}</h1>
      {children && <div className={styles.text}>{children}</div>}
      {action && 'run' in action && <Button onClick={action.run}>{action.label}</Button>}
      {action && 'href' in action && <Anchor href={action.href}>{action.label}</Anchor>}
    </main>
  );
}
