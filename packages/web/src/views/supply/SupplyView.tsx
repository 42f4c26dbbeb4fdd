import { has } from '@roof-chart/core/collections/has';
import clsx from 'clsx';
import { Button, Checkbox } from '@mantine/core';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { placementText } from '@roof-chart/core/text/names';
import { type RailReport, railReports, wantedCapacitors } from '@roof-chart/core/electrics/reports/railReport';
import type { Plan } from '@roof-chart/core/plan/plan';
import { formatSi } from '@roof-chart/core/quantity/format';
import { useWorkbench } from '../../state/workbench';
import { ScaleChart, type ScaleRow } from '../../ui/chart/ScaleChart';
import { stackRows } from '../../ui/chart/stackRows';
import { useOpenPlan } from '../../state/store';
import { LoadFields } from './LoadFields';
import styles from './Supply.module.css';
import { besidesWords, heatWords, lineName, railWords, scaleOf, unitOf } from './supplyWords';

const amps = (milliamps: number): string => formatSi(milliamps / 1000, 'A');

/** The consumers of a rail. */
const rowsOf = (plan: Plan, { rail, lines }: RailReport): readonly ScaleRow[] =>
  stackRows(
    lines.map((line, n) => ({
      id: `${n}`,
      head: lineName(plan, line),
      value: `up to ${amps(line.peakMilliamps)}`,
      amount: line.peakMilliamps,
    })),
    rail.budgetMilliamps ?? Infinity,
  );

/** The parts on a rail: how many of each there are, and how much of it is on at once. */
function Loads({ plan, lines }: { readonly plan: Plan; readonly lines: RailReport['lines'] }) {
  const { sheets } = useWorkbench();
  const parts = lines.filter(has('placement'));
  if (parts.length === 0) return null;
  return (
    <details className={styles.uses} open={parts.some((line) => plan.loads[line.placement])}>
      <summary>Quantities and simultaneous use</summary>
      <table className={styles.table}>
        <thead>
          <tr>
            <th scope="col">Part</th>
            <th scope="col">Average</th>
            <th scope="col">Peak</th>
            <th scope="col">Quantity</th>
            <th scope="col">Simultaneous use</th>
          </tr>
        </thead>
        <tbody>
          {parts.map((line) => {
            const name = lineName(plan, line);
            return (
              <tr key={`${line.placement} ${line.what}`}>
                <th scope="row">{name}</th>
                <td className="num">{amps(line.typicalMilliamps)}</td>
                <td className="num">{amps(line.peakMilliamps)}</td>
                <LoadFields plan={plan} line={line} name={name} unit={unitOf(plan, sheets, line)} />
              </tr>
            );
          })}
        </tbody>
      </table>
    </details>
  );
}

function Rail({ plan, report }: { readonly plan: Plan; readonly report: RailReport }) {
  const { rail, lines, peakMilliamps } = report;
  const limit = rail.budgetMilliamps;
  const scale = scaleOf(report);
  const heat = heatWords(report);
  return (
    <section className={styles.rail} aria-label={rail.label}>
      <h3>
        {rail.label} <span className={limit !== undefined && peakMilliamps > limit ? styles.over : 'quiet'}>{railWords(report)}</span>
      </h3>
      <p className={clsx('quiet', styles.fact)}>{rail.feed}</p>
      {lines.length === 0 ? (
        <p className={styles.fact}>No loads.</p>
      ) : (
        <ScaleChart
          label={`Current of ${rail.label}`}
          scale={scale}
          rows={rowsOf(plan, report)}
          windows={limit === undefined ? [] : [{ from: limit, to: scale.max, tone: 'clash' }]}
          {...(limit === undefined
            ? {}
            : {
                total: { at: limit, words: `limit ${amps(limit)}`, tone: peakMilliamps > limit ? ('risky' as const) : ('good' as const) },
              })}
          headWidth={250}
          width={400}
        />
      )}
      {[heat, besidesWords(report)].map(
        (words) =>
          words && (
            <p key={words} className={styles.fact}>
              {words}
            </p>
          ),
      )}
      <Loads plan={plan} lines={lines} />
    </section>
  );
}

/** The decoupling capacitors required by parts, each checked once it is in the plan. */
function Capacitors({ plan }: { readonly plan: Plan }) {
  const { sheets, edit } = useWorkbench();
  const wanted = useMemo(() => wantedCapacitors(plan, sheets), [plan, sheets]);
  if (wanted.length === 0) return null;
  return (
    <section className={styles.rail} aria-label="Capacitors">
      <h3>Decoupling capacitors</h3>
      <ul className={styles.list}>
        {wanted.map(({ placement, list, there }) => (
          <li key={placement}>
            <Checkbox
              size="xs"
              checked={there}
              label={`${placementText(plan, placement)}: ${list.map(({ farads, at }) => `${formatSi(farads, 'F')} at ${at}`).join('; ')}`}
              onChange={(event) => edit([{ kind: 'capacitors', placement, there: event.currentTarget.checked }])}
            />
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Rails on an axis of current with their loads, their maximum current, and the dissipation of their regulator. */
export function SupplyView() {
  const plan = useOpenPlan();
  const { sheets } = useWorkbench();
  const rails = useMemo(() => railReports(plan, sheets), [plan, sheets]);
  if (rails.every(({ lines }) => lines.every((line) => line.placement === undefined)))
    return (
      <div className={styles.empty}>
        <h2>No loads yet</h2>
        <p>Connect the supply of a part to see the load and the limit of its rail here.</p>
        <Button component={Link} to={`/plans/${plan.id}/chart`}>
          Open the Chart
        </Button>
      </div>
    );
  return (
    <div className={styles.view}>
      <h2 className={styles.title}>Power</h2>
      {rails.map((report) => (
        <Rail key={report.rail.id} plan={plan} report={report} />
      ))}
      <Capacitors plan={plan} />
      <p className="quiet">
        Currents from the sheets; LED currents calculated from their resistors; peaks multiplied by simultaneous use.{' '}
        <Link to={`/plans/${plan.id}/facts`}>Enter measured currents under Facts.</Link>
      </p>
    </div>
  );
}
