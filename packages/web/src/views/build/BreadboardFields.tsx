import { SegmentedControl } from '@mantine/core';
import { type Breadboard, PLAN_LIMITS } from '@roof-chart/core/plan/plan';

/** The breadboard: rows, how many of them end to end, and its rails. */
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
        aria-label="Breadboards end to end"
        size="xs"
        data={Array.from({ length: PLAN_LIMITS.breadboards }, (_, at) => ({ value: String(at + 1), label: `${at + 1} ×` }))}
        value={String(value.boards)}
        onChange={(boards) => onChange({ ...value, boards: Number(boards) })}
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
