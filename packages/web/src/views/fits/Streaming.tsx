import clsx from 'clsx';
import { Progress } from '@mantine/core';
import styles from './Fits.module.css';

/** How far the answers are, then what they come to; of one height, so that nothing jumps when the last comes in. */
export function Streaming({ done, all, words }: { readonly done: number; readonly all: number; readonly words: string }) {
  const ready = done >= all;
  return (
    <div className={styles.streaming} role="status">
      {ready ? (
        <p className="quiet">{words}</p>
      ) : (
        <>
          <p className="quiet">
            Checked: <span className="num">{done}</span> of <span className="num">{all}</span>
          </p>
          <Progress className={clsx(styles.progress)} value={(100 * done) / all} size="xs" aria-label="Progress" transitionDuration={0} />
        </>
      )}
    </div>
  );
}
