import { Link } from 'react-router';
import type { BusLedger } from '@roof-chart/core/review/ledgers';
import styles from './Ledgers.module.css';
import { selectReviewed } from '../state/selectors';
import { useAppSelector } from '../state/store';
import { Hint } from '../ui/Hint';

interface LedgerProps {
  readonly label: string;
  readonly used: number;
  readonly most: number | undefined;
  readonly unit?: string;
  readonly title: string;
  /** A share needs no second number. */
  readonly share?: true;
  /** The view with the details. */
  readonly to?: string;
}

const whole = (value: number) => String(Math.round(value));

/** One budget as a thin bar with its numbers; over budget it also says so in text. */
function Ledger({ label, used, most, unit = '', title, share: isShare, to }: LedgerProps) {
  const share = most ? Math.min(1, used / most) : 0;
  const over = most !== undefined && used > most;
  return (
    <Hint label={title}>
      <div className={styles.ledger}>
        {to ? <Link to={to}>{label}</Link> : <span>{label}</span>}
        <svg width="86" height="5" aria-hidden className={over ? styles.over : styles.bar}>
          <rect width="86" height="5" className={styles.rest} />
          <rect width={86 * share} height="5" />
        </svg>
        <span className={`num ${over ? styles.overText : styles.value}`}>
          {whole(used)}
          {most === undefined || isShare ? '' : `/${whole(most)}`}
          {unit && ` ${unit}`}
          {over && ' over'}
        </span>
      </div>
    </Hint>
  );
}

/** Buses that find room beside pins and rails. */
const MOST_BUSES = 3;

/** The busiest buses, in the order of the plan. */
function busiest(buses: readonly BusLedger[]): readonly BusLedger[] {
  const first = new Set(buses.toSorted((a, b) => b.share - a.share).slice(0, MOST_BUSES));
  return buses.filter((bus) => first.has(bus));
}

/** The plan's budgets, always in sight. */
export function Ledgers() {
  const reviewed = useAppSelector(selectReviewed);
  const ledgers = reviewed?.result.ok ? reviewed.result.review.ledgers : undefined;
  const base = `/plans/${reviewed?.plan.id ?? ''}`;
  return (
    <footer className={styles.ledgers} aria-label="Budgets">
      {ledgers && (
        <>
          <Ledger
            label="Pins"
            used={ledgers.pins.used}
            most={ledgers.pins.total}
            title="Signal pins in use, of those on the board’s headers"
          />
          {busiest(ledgers.buses).map((bus) => (
            <Ledger
              key={bus.controller}
              label={bus.label}
              used={bus.share * 100}
              most={100}
              unit="%"
              share
              to={`${base}/buses/${bus.controller}`}
              title={`Utilisation of ${bus.label}; opens Buses`}
            />
          ))}
          {ledgers.rails.map((rail) => (
            <Ledger
              key={rail.rail}
              label={rail.label}
              used={rail.typicalMilliamps}
              most={rail.budgetMilliamps}
              unit="mA"
              to={`${base}/supply`}
              title={`Typical current of the parts on ${rail.label}; all peaks together ${whole(rail.peakMilliamps)} mA; opens Power`}
            />
          ))}
        </>
      )}
    </footer>
  );
}
