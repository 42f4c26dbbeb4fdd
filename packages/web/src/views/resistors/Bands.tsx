import { bandColours } from '@roof-chart/core/text/resistorText';
import styles from './Resistors.module.css';

/** What the colours of IEC 60062 look like on a resistor. */
const INK: { readonly [colour: string]: string } = {
  black: '#1c1c1c',
  brown: '#6b3f1d',
  red: '#c2281d',
  orange: '#e07b1a',
  yellow: '#e8c51c',
  green: '#2e7d3a',
  blue: '#2456a6',
  violet: '#77429b',
  grey: '#8a8a8a',
  white: '#f5f5f5',
  gold: '#b8902f',
  silver: '#b9bcc0',
};

/** The bands of a resistor as they are seen, with their names for who does not see them. */
export function Bands({ ohms }: { readonly ohms: number }) {
  const colours = bandColours(ohms);
  if (colours.length === 0) return null;
  return (
    <svg width={64} height={16} role="img" aria-label={colours.join(', ')} className={styles.bands}>
      <title>{colours.join(', ')}</title>
      <line x1={0} x2={64} y1={8} y2={8} stroke="var(--rule-strong)" strokeWidth={1.5} />
      <rect x={8} y={2} width={48} height={12} rx={4} fill="#d9c7a3" stroke="var(--rule-strong)" />
      {colours.map((colour, at) => (
        <rect key={at} x={14 + at * 9 + (at === colours.length - 1 ? 4 : 0)} y={2} width={5} height={12} fill={INK[colour]} />
      ))}
    </svg>
  );
}
