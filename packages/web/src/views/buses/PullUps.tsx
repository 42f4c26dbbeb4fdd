import { Button, NumberInput } from '@mantine/core';
import { pulledTo } from '@roof-chart/core/electrics/formulas/busPullUps';
import type { SegmentReport } from '@roof-chart/core/electrics/reports/segmentReport';
import type { Plan } from '@roof-chart/core/plan/plan';
import { formatSi } from '@roof-chart/core/quantity/format';
import { useWorkbench } from '../../state/workbench';
import styles from './Buses.module.css';
import { pullUpAdvice, idleLevelText, segmentText } from '@roof-chart/core/text/views/busText';
import { ValuesOnHandFields } from '../../ui/ValuesOnHandFields';
import { PullUpAxis } from './PullUpAxis';
import { Rise } from './Rise';
import { commit } from '../../ui/busSettings';
import { ClockField, type SettingsOfBus, useBusSettings, WireLengthField } from './BusSettingFields';

const CLOCKS = [100e3, 400e3, 1e6];

interface SegmentProps {
  readonly plan: Plan;
  readonly sheet: SegmentReport;
  readonly bus: SettingsOfBus;
}

/** What the window says, and the steps that it proposes. */
function Advice({ plan, sheet, bus: { settings, change }, connected }: SegmentProps & { readonly connected: boolean }) {
  const { edit } = useWorkbench();
  const rest = idleLevelText(plan, sheet);
  const added = settings?.addedOhms;
  return (
    <div className={styles.advice}>
      <div>
        <p className={sheet.pullUps.verdict === 'good' ? styles.good : styles.risky}>{pullUpAdvice(plan, sheet)}</p>
        {rest && <p className={styles.bad}>{rest}</p>}
      </div>
      {sheet.add !== undefined && connected && (
        <Button size="compact-xs" variant="outline" onClick={() => change({ addedOhms: sheet.add })}>
          Add {formatSi(sheet.add, 'Ω')} to each line
        </Button>
      )}
      {sheet.cut.length > 0 && (
        <Button
          size="compact-xs"
          variant="outline"
          onClick={() => edit(sheet.cut.map((placement) => ({ kind: 'cut-pull-ups', placement, cut: true })))}
        >
          Remove {sheet.cut.length === 1 ? 'its pull-ups' : `the pull-ups of ${sheet.cut.length} parts`}
        </Button>
      )}
      {added !== undefined && (
        <Button size="compact-xs" variant="default" onClick={() => change({ addedOhms: undefined })}>
          Take {formatSi(added, 'Ω')} away
        </Button>
      )}
    </div>
  );
}

/** What is known of the wires, and for the segment at the board its clock. */
function SettingFields({ plan, sheet: { capacitance, segment }, bus }: SegmentProps) {
  const { settings, change } = bus;
  return (
    <div className={styles.fields}>
      <WireLengthField bus={bus} assumed={capacitance.wire} />
      <NumberInput
        size="xs"
        label="Measured capacitance, pF"
        min={1}
        max={100_000}
        value={settings?.picofarads ?? ''}
        placeholder={`${Math.round(capacitance.farads * 1e12)} assumed`}
        onBlur={(event) => commit(event.currentTarget.value, settings?.picofarads, (picofarads) => change({ picofarads }))}
      />
      {!segment.via && <ClockField bus={bus} label="Clock" usual="maximum of all devices" clocks={CLOCKS} />}
      {!segment.via && <ValuesOnHandFields onHand={plan.valuesOnHand} />}
    </div>
  );
}

function Working({ sheet }: Pick<SegmentProps, 'sheet'>) {
  return (
    <details className={styles.working}>
      <summary>Why</summary>
      <ul>
        {sheet.pullUps.working.map((one) => (
          <li key={one.formula}>
            <span className="mono">{one.formula}</span>: {one.values} <span className="quiet">({one.source})</span>
          </li>
        ))}
      </ul>
    </details>
  );
}

/** The pull-ups of a bus segment with the allowed window, what to do about them, and what they are worked out from.
 *  @param connected whether the bus has a controller, so that it can be calculated */
export function PullUps({ plan, sheet, connected }: { readonly plan: Plan; readonly sheet: SegmentReport; readonly connected: boolean }) {
  const { input, capacitance, segment } = sheet;
  const bus = useBusSettings(plan, connected ? segment.id : undefined);
  const own = { plan, sheet, bus };
  return (
    <section className={styles.section}>
      <h2>
        {segmentText(segment)}{' '}
        <span className={styles.aside}>
          {formatSi(pulledTo(input).max, 'V')} maximum, {formatSi(capacitance.farads, 'F')}
          {capacitance.measured === undefined ? ' estimated' : ' measured'}, window for {formatSi(input.hz, 'Hz')}
        </span>
      </h2>
      <PullUpAxis
        plan={plan}
        sheet={sheet}
        added={bus.settings?.addedOhms}
        onAdd={connected ? (addedOhms) => bus.change({ addedOhms }) : undefined}
      />
      <Advice {...own} connected={connected} />
      <div className={styles.beside}>
        <Rise sheet={sheet} />
        <div>
          <SettingFields {...own} />
          <Working sheet={sheet} />
        </div>
      </div>
    </section>
  );
}
