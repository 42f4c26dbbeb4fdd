import { Link } from 'react-router';
import type { Plan } from '@roof-chart/core/plan/plan';
import styles from './Build.module.css';

interface OpenErrorsProps {
  readonly plan: Plan;
  readonly errors: readonly string[];
  /** One line: how many, and where they are mended. */
  readonly brief?: boolean;
}

/** What is still wrong with the plan, on everything that somebody builds from: before the first wire, in print and step by step. */
export function OpenErrors({ plan, errors, brief = false }: OpenErrorsProps) {
  if (errors.length === 0) return null;
  return (
    <section className={styles.errors} aria-label="Open errors">
      <p>
        <strong>
          {errors.length} {errors.length === 1 ? 'error is' : 'errors are'} open.
        </strong>{' '}
        Built like this, it does not work or is damaged. <Link to={`/plans/${plan.id}/chart`}>Fix in the Chart</Link>
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
