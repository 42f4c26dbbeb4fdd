import { Link } from 'react-router';
import { counted } from '@roof-chart/core/quantity/format';
import type { Plan } from '@roof-chart/core/plan/plan';
import styles from './Build.module.css';

interface OpenErrorsProps {
  readonly plan: Plan;
  readonly errors: readonly string[];
  /** One line: how many, and where they are mended. */
  readonly brief?: boolean;
}

/** The open errors of the plan, shown on every form of the build sheet: list, print and step by step. */
export function OpenErrors({ plan, errors, brief = false }: OpenErrorsProps) {
  if (errors.length === 0) return null;
  return (
    <section className={styles.errors} aria-label="Open errors">
      <p>
        <strong>{counted(errors.length, 'open error')}.</strong> Built as planned, the circuit will not work or may be damaged.{' '}
        <Link to={`/plans/${plan.id}/chart`}>Fix it in the Chart</Link>
      </p>
      {!brief && (
        <ul>
          {errors.map((title, n) => (
            <li key={n}>{title}</li>
          ))}
        </ul>
      )}
    </section>
  );
}
