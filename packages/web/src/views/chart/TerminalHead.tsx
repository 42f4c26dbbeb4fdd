import { memo } from 'react';
import type { WireColour } from '@roof-chart/core/plan/plan';
import styles from './Chart.module.css';
import { WireBar } from '../../ui/WireBar';

interface TerminalHeadProps {
  /** The part's name in the first row of its group; its supply in the second. */
  readonly name: string | undefined;
  readonly volts: string | undefined;
  readonly label: string;
  readonly colour: WireColour | undefined;
  readonly value: string;
  readonly wrong: boolean;
  readonly missing: boolean;
}

/** The head of a row: part, wire colour, printed label, where it goes. */
export const TerminalHead = memo(function TerminalHead({ name, volts, label, colour, value, wrong, missing }: TerminalHeadProps) {
  return (
    <span className={styles.headRow}>
      <span className={name ? styles.part : styles.volts} title={name}>
        {name ?? volts}
      </span>
      <WireBar colour={colour} />
      <span className={styles.terminal}>{label}</span>
      <span className={wrong ? styles.wrongPin : styles.pinName}>
        {value || (missing ? <span className={styles.open}>open</span> : <span className={styles.optional}>–</span>)}
      </span>
    </span>
  );
});
