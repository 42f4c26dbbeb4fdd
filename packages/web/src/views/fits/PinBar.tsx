import styles from './Fits.module.css';

const WIDTH = 190;
const PAD = 8;
const at = (pins: number, most: number): number => PAD + ((WIDTH - 2 * PAD) * pins) / most;

/** The axis over all boards: numbers of pins. */
export function PinAxis({ most }: { readonly most: number }) {
  const ticks = Array.from({ length: Math.floor(most / 20) + 1 }, (_, n) => n * 20);
  return (
    <svg width={WIDTH} height={22} aria-hidden className={styles.axis}>
      <line x1={at(0, most)} x2={at(most, most)} y1={17} y2={17} />
      {ticks.map((pins) => (
        <g key={pins}>
          <line x1={at(pins, most)} x2={at(pins, most)} y1={13} y2={17} />
          <text x={at(pins, most)} y={10} textAnchor="middle">
            {pins}
          </text>
        </g>
      ))}
    </svg>
  );
}

/** Pins in use as a line that ends in a disc, and where the board's pins end as a ring: the gap is the head-room. */
export function PinBar({ used, total, most }: { readonly used: number; readonly total: number; readonly most: number }) {
  return (
    <svg width={WIDTH} height={18} role="img" aria-label={`${used} of ${total} pins in use`} className={styles.bar}>
      <line x1={at(0, most)} x2={at(total, most)} y1={9} y2={9} className={styles.barRest} />
      <line x1={at(0, most)} x2={at(used, most)} y1={9} y2={9} className={styles.barUsed} />
      {used < total && <circle cx={at(total, most)} cy={9} r={4} className={styles.barEnd} />}
      <circle cx={at(used, most)} cy={9} r={4.5} className={styles.barDisc} />
    </svg>
  );
}
