import type { Spans } from '@roof-chart/core/electrics/calculations/calculation';
import { typical } from '@roof-chart/core/quantity/range';
import { formatSi } from '@roof-chart/core/quantity/format';
import { ScaleChart } from '../../ui/chart/ScaleChart';
import type { Scale } from '../../ui/chart/placing';

const said = (value: number, unit: string): string => (unit === 'counts' ? String(Math.round(value)) : formatSi(value, unit));

/** What a calculation came to, on an axis: ranges under each other, between windows that they must keep to or keep out of. */
export function SpanPicture({ spans, label }: { readonly spans: Spans; readonly label: string }) {
  const { unit, from, to, rows, windows } = spans;
  const scale: Scale = {
    min: from,
    max: to,
    log: false,
    ticks: [0, 0.25, 0.5, 0.75, 1].map((share) => from + (to - from) * share).map((at) => ({ at, label: said(at, unit) })),
  };
  return (
    <ScaleChart
      label={label}
      scale={scale}
      rows={rows.map(({ label: head, range }) => ({
        id: head,
        head,
        value: `${said(range.min, unit)} to ${said(range.max, unit)}`,
        marks: [{ at: typical(range), kind: 'disc', from: range.min, to: range.max }],
      }))}
      windows={windows.map((window) => ({
        from: window.from,
        to: window.to,
        tone: window.good ? 'good' : 'quiet',
        ...(window.good ? { fromLabel: said(window.from, unit), toLabel: said(window.to, unit) } : {}),
      }))}
      headWidth={250}
      width={420}
    />
  );
}
