import { useRef } from 'react';
import { Line, LineChart, ReferenceArea, ReferenceDot, ReferenceLine, XAxis, YAxis } from 'recharts';
import { type LedReport, ledCurrent } from '@roof-chart/core/electrics/reports/ledReport';
import { formatSi } from '@roof-chart/core/quantity/format';
import { typical } from '@roof-chart/core/quantity/range';
import { SavePicture } from '../../ui/SavePicture';
import { svgOf } from '../../ui/svgOf';
import styles from './Resistors.module.css';

const AXIS = { stroke: 'var(--quiet)', fontSize: 11 };
const inVolts = (value: number): string => `${value} V`;
const inMilliamps = (value: number): string => `${Math.round(value)} mA`;

/** How supply, resistor and LED meet: the line of what the resistor lets through, and where the LED's forward voltage cuts it. */
export function LoadLine({ led, ohms }: { readonly led: LedReport; readonly ohms: number }) {
  const supply = typical(led.supply) - typical(led.dropVolts);
  const whole = ohms + typical(led.driveOhms);
  const most = led.supply.max / (ohms * 0.95);
  const amps = ledCurrent(led, ohms);
  const points = [
    { volts: 0, nominal: (supply / whole) * 1000, most: most * 1000 },
    { volts: supply, nominal: 0 },
    { volts: led.supply.max, most: 0 },
  ];
  const top = Math.max(amps.max, led.maxAmps) * 1250;
  const figure = useRef<HTMLElement>(null);
  return (
    <figure ref={figure} className={styles.picture}>
      <figcaption>
        {formatSi(amps.typ ?? amps.min, 'A')} nominal, {formatSi(amps.min, 'A')} to {formatSi(amps.max, 'A')} worst case; maximum{' '}
        {formatSi(led.maxAmps, 'A')}
      </figcaption>
      <LineChart
        width={400}
        height={190}
        data={points}
        margin={{ top: 8, right: 70, bottom: 4, left: 6 }}
        accessibilityLayer={false}
        aria-hidden
      >
        <XAxis
          {...AXIS}
          dataKey="volts"
          type="number"
          domain={[0, Math.ceil(led.supply.max)]}
          tickFormatter={inVolts}
          allowDecimals={false}
        />
        <YAxis {...AXIS} domain={[0, Math.ceil(top)]} allowDataOverflow width={48} tickFormatter={inMilliamps} tickCount={4} />
        <ReferenceArea x1={led.forwardVolts.min} x2={led.forwardVolts.max} fill="var(--tint)" ifOverflow="hidden" />
        <ReferenceLine
          y={led.maxAmps * 1000}
          stroke="var(--brick)"
          strokeDasharray="4 3"
          label={{ value: 'maximum', position: 'right', fontSize: 11, fill: 'var(--brick)' }}
        />
        <Line dataKey="most" stroke="var(--verdigris)" strokeDasharray="3 3" dot={false} isAnimationActive={false} connectNulls />
        <Line dataKey="nominal" stroke="var(--verdigris)" strokeWidth={2} dot={false} isAnimationActive={false} connectNulls />
        <ReferenceDot x={typical(led.forwardVolts)} y={(amps.typ ?? 0) * 1000} r={5} fill="var(--ink)" stroke="none" />
      </LineChart>
      <p className="quiet">
        Band: forward voltage range. Solid: load line with nominal output resistance. Dashed: load line in the worst case. Disc: operating
        point. <SavePicture label="Load line" svg={() => svgOf(figure.current)} />
      </p>
    </figure>
  );
}
