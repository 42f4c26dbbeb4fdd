import { type ReactNode, useEffect } from 'react';
import { Link } from 'react-router';
import styles from './Sheets.module.css';

/** The frame around every page of the sheets. */
export function SheetsPage({
  title,
  tools,
  children,
}: {
  readonly title: string;
  readonly tools?: ReactNode;
  readonly children: ReactNode;
}) {
  useEffect(() => {
    document.title = `${title} · Roof Chart`;
  }, [title]);
  return (
    <div className={styles.page}>
      <header className={styles.top}>
        <Link to="/">← Plans</Link>
        {title !== 'Library' && <Link to="/sheets">Library</Link>}
        <h1>{title}</h1>
        <span className={styles.space} />
        {tools}
      </header>
      <main className={styles.main}>{children}</main>
    </div>
  );
}
