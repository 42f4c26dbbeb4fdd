import { unbroken } from '@roof-chart/core/text/unbroken';
import styles from './Unbroken.module.css';

/** A text in which no line ends between a number and its unit. Marked up, not written with other spaces, so that it is found and copied as
 *  it reads. */
export function Unbroken({ text }: { readonly text: string }) {
  return unbroken(text).map((piece, at) =>
    piece.whole ? (
      <span key={at} className={styles.whole}>
        {piece.text}
      </span>
    ) : (
      piece.text
    ),
  );
}
