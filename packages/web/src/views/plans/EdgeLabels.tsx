import { firstOrThrow } from '@roof-chart/core/collections/orThrow';
import { headerEnd } from '@roof-chart/core/text/headerEnd';
import { edgesOf } from '@roof-chart/core/identify/identifyBoard';
import type { BoardSheet } from '@roof-chart/core/sheets/boardSheet';
import styles from './Plans.module.css';

/** What is printed at the edges of a board, to compare with the one on the bench before planning on it. */
export function EdgeLabels({ board }: { readonly board: BoardSheet }) {
  return (
    <div className={styles.boardNote}>
      <p className={styles.boardNote}>{board.summary}</p>
      <details>
        <summary>Check the labels against yours</summary>
        <ul className={styles.edges}>
          {edgesOf(board).map(({ header, pins }) => (
            <li key={`${header.id} ${pins[0]?.id ?? ''}`}>
              <span>
                {header.title}
                {header.rows === 2 ? `, ${firstOrThrow(pins).position % 2 === 1 ? 'odd' : 'even'} row` : ''}, from{' '}
                {headerEnd(header.ends[0])}:
              </span>{' '}
              <span className="mono">{pins.map(({ label }) => label).join(' ')}</span>
            </li>
          ))}
        </ul>
      </details>
    </div>
  );
}
