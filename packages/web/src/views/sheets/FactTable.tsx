import type { ReactNode } from 'react';
import { sourceLine, type Source } from '@roof-chart/core/sheets/source';
import type { FactRow } from '@roof-chart/core/text/views/factText';
import styles from './Sheets.module.css';

/** A group of facts with where they come from, and how far they can be trusted. */
export function Group({
  title,
  source,
  children,
}: {
  readonly title: string;
  readonly source?: Source | undefined;
  readonly children: ReactNode;
}) {
  return (
    <section className={styles.group}>
      <h3>{title}</h3>
      {children}
      {source && (
        <p className={styles.source}>
          <span className={source.trust === 'typical' || source.trust === 'bench' ? styles.weak : styles.strong}>{source.trust}</span>{' '}
          {sourceLine(source).replace(/ \([a-z]+\)$/, '')}
          {source.note ? `. ${source.note}` : ''}
        </p>
      )}
    </section>
  );
}

export function FactTable({ rows }: { readonly rows: readonly FactRow[] }) {
  if (rows.length === 0) return <p className="quiet">None.</p>;
  return (
    <table className={styles.facts}>
      <tbody>
        {rows.map((row) => (
          <tr key={row.name + row.value}>
            <th scope="row">{row.name}</th>
            <td className="num">{row.value}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** A table of members of a list. */
export function ListTable({
  label,
  heads,
  rows,
}: {
  readonly label: string;
  readonly heads: readonly string[];
  readonly rows: readonly (readonly ReactNode[])[];
}) {
  return (
    <div className={styles.scroll} tabIndex={0} role="region" aria-label={label}>
      <table className={styles.list} aria-label={label}>
        <thead>
          <tr>
            {heads.map((head) => (
              <th key={head} scope="col">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((cells, at) => (
            <tr key={at}>
              {cells.map((cell, column) => (
                <td key={column}>{cell}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
