import { useSyncExternalStore } from 'react';
import styles from './announcer.module.css';

let words = '';
const listeners = new Set<() => void>();

/** Announces changes to screen readers. */
export function announce(text: string): void {
  // A repeated text would not be read again; the invisible mark makes it another text.
  words = text === words ? `${text}\u200b` : text;
  for (const listener of listeners) listener();
}

const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => void listeners.delete(listener);
};

export function Announcer() {
  const text = useSyncExternalStore(subscribe, () => words);
  return (
    <div aria-live="polite" role="status" className={styles.hidden}>
      {text}
    </div>
  );
}
