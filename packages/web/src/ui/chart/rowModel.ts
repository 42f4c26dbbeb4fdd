import type { ReactNode } from 'react';

/** One row of a chart. */
export interface RowModel {
  readonly id: string;
  readonly label: string;
  readonly head: ReactNode;
  /** Columns where the row could go: a small ring each. The same array while the sheets are the same. */
  readonly could: readonly string[];
  readonly at: string | null;
  readonly mark: 'does' | 'locked' | 'clash';
  /** Where a proposal would put it; null for nowhere. */
  readonly next?: string | null;
}
