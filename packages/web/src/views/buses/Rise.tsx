import { lastOrThrow } from '@roof-chart/core/collections/orThrow';
import { useMemo, useRef } from 'react';
import { Line, LineChart, ReferenceLine, XAxis, YAxis } from 'recharts';
import { pulledTo } from '@roof-chart/core/electrics/formulas/busPullUps';
import { riseCurve, riseLevels } from '@roof-chart/core/electrics/formulas/riseCurve';
import { formatSi } from '@roof-chart/core/quantity/format';
import type { SegmentReport } from '@roof-chart/core/electrics/reports/segmentReport';
import { SavePicture } from '../../ui/SavePicture';
import { svgOf } from '../../ui/svgOf';
import styles from './Buses.module.css';

const LEVEL = { stroke: 'var(--rule-strong)', strokeDasharray: '4 3' };
const LEVEL_LABEL = { position: 'right', fontSize: 11, fill: 'var(--quiet)' } as const;

/** The rise of a released line, both corners, over half a clock period. */
export function Rise({ sheet }: { readonly sheet: SegmentReport }) {
  const { input, pullUps } = sheet;
  const figure = useRef<HTMLElement>(null);
  const points = useMemo(() => riseCurve(input), [input]);
  if (points.length === 0) return null;
  const vdd = pulledTo(input).min;
  const [low, high] = riseLevels(vdd);
  const top = Math.ceil(Math.max(...points.map((p) => p.fast), vdd));
  const half = lastOrThrow(points).seconds;
  const slow = pullUps.riseSeconds;
  return (
    <figure ref={figure} className={styles.rise}>
      <figcaption>
        Rise{' '}
        {slow && Number.isFinite(slow.max)
          ? `${formatSi(slow.max, 's')} worst case, limit ${formatSi(pullUps.riseLimitSeconds, 's')}`
          : 'never reaches VIH'}
      </figcaption>
      <LineChart
        width={330}
        height={150}
        data={points}
        margin={{ top: 6, right: 60, bottom: 0, left: 0 }}
        accessibilityLayer={false}
        aria-hidden
      >
        <XAxis
          dataKey="seconds"
          type="number"
          domain={[0, half]}
          ticks={[0, half / 2, half]}
          tickFormatter={(value: number) => formatSi(value, 's')}
          stroke="var(--quiet)"
          fontSize={11}
        />
        <YAxis
          domain={[0, top]}
          width={34}
          tickFormatter={(value: number) => `${value} V`}
          stroke="var(--quiet)"
          fontSize={11}
          tickCount={3}
        />
        <ReferenceLine y={high} {...LEVEL} label={{ ...LEVEL_LABEL, value: '0.7 VDD' }} />
        <ReferenceLine y={low} {...LEVEL} label={{ ...LEVEL_LABEL, value: '0.3 VDD' }} />
        <Line dataKey="fast" stroke="var(--verdigris)" strokeDasharray="3 3" dot={false} isAnimationActive={false} />
        <Line dataKey="slow" stroke="var(--verdigris)" strokeWidth={2} dot={false} isAnimationActive={false} />
      </LineChart>
      <p className="quiet">
        Solid: weakest pull-up. Dashed: strongest pull-up.{' '}
        <SavePicture
          label={`Rise of the line${sheet.segment.via ? ` behind ${sheet.segment.via.placement.name}` : ''}`}
          svg={() => svgOf(figure.current)}
        />
      </p>
    </figure>
  );
}
