import { memo, type ReactNode } from 'react';
import styles from './SignalChart.module.css';
import { shallowEqual } from './shallowEqual';

interface HangHeadProps {
  readonly id: string;
  readonly top: number;
  readonly height: number;
  readonly first: boolean;
  readonly head: ReactNode;
  /** What the row is, for people who do not see the chart. */
  readonly label: string;
  readonly focused: boolean;
  /** The accessible name of the cell under the cursor; empty without one. */
  readonly cellLabel: string;
  readonly onFocus: (row: string) => void;
}

/** The head of a row. It carries the row's meaning for assistive technology, the cell under the cursor included;
 *  the marks in the field are its picture. All heads lie in one element that stays in sight: one of their own for
 *  each row would cost the browser a layer a row. */
export const ChartRowHead = memo(function HangHead({ id, top, height, first, head, label, focused, cellLabel, onFocus }: HangHeadProps) {
  return (
    <div
      role="row"
      aria-label={label}
      aria-selected={focused}
      data-row={id}
      className={[styles.head, first ? styles.firstHead : '', focused ? styles.focusedHead : ''].join(' ')}
      style={{ top, height }}
      onClick={() => onFocus(id)}
    >
      <div role="rowheader" className={styles.headCell}>
        {head}
      </div>
      {cellLabel && (
        <span role="gridcell" id={`cell-${id}`} aria-label={cellLabel} className={styles.hiddenCell}>
          {cellLabel}
        </span>
      )}
    </div>
  );
}, shallowEqual);
