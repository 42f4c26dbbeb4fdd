import { SegmentedControl } from '@mantine/core';
import { type Breadboard, PLAN_LIMITS } from '@roof-chart/core/plan/plan';

const SIDE_BY_SIDE = '2 side by side';

/** How many boards there are, and how they lie. */
function countOf({ boards, arrangement }: Breadboard): string {
  return arrangement ? SIDE_BY_SIDE : String(boards);
}

const COUNTS = Array.from({ length: PLAN_LIMITS.breadboards }, (_, at) => ({ value: String(at + 1), label: `${at + 1} ×` })).toSpliced(
  2,
  0,
  {
    value: SIDE_BY_SIDE,
    label: SIDE_BY_SIDE,
  },
);

/** The same breadboard, with so many boards. */
function withCount({ rows, rails }: Breadboard, count: string): Breadboard {
  return count === SIDE_BY_SIDE ? { rows, rails, boards: 2, arrangement: 'side by side' } : { rows, rails, boards: Number(count) };
}

/** The breadboard: rows, how many of them end to end or side by side, and its rails. */
export function BreadboardFields({ value, onChange }: { readonly value: Breadboard; readonly onChange: (next: Breadboard) => void }) {
  return (
    <>
      <SegmentedControl
        aria-label="Rows of the breadboard"
        size="xs"
        data={[
          { value: '30', label: '30 rows' },
          { value: '63', label: '63 rows' },
        ]}
        value={String(value.rows)}
        onChange={(rows) => onChange({ ...value, rows: rows === '30' ? 30 : 63 })}
      />
      <SegmentedControl
        aria-label="Breadboards, end to end or side by side"
        size="xs"
        data={COUNTS}
        value={countOf(value)}
        onChange={(count) => onChange(withCount(value, count))}
      />
      <SegmentedControl
        aria-label="Supply rails"
        size="xs"
        data={[
          { value: 'whole', label: 'Continuous rails' },
          { value: 'split', label: 'Rails split in the middle' },
        ]}
        value={value.rails}
        onChange={(rails) => onChange({ ...value, rails: rails === 'split' ? 'split' : 'whole' })}
      />
    </>
  );
}
