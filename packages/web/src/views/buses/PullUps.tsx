import { Button, NativeSelect, NumberInput } from '@mantine/core';
import { pulledTo } from '@roof-chart/core/electrics/formulas/busPullUps';
import type { SegmentReport } from '@roof-chart/core/electrics/reports/segmentReport';
import type { BusSettings, Plan } from '@roof-chart/core/plan/plan';
import { formatSi } from '@roof-chart/core/quantity/format';
import { useWorkbench } from '../../state/workbench';
import styles from './Buses.module.css';
import { pullUpAdvice, idleLevelText, segmentText } from '@roof-chart/core/text/views/busText';
import { DrawerFields } from '../../ui/DrawerFields';
import { PullUpAxis } from './PullUpAxis';
import { Rise } from './Rise';
import { changed, commit } from '../../ui/busSettings';

const CLOCKS = [100e3, 400e3, 1e6];

type Change = (change: Parameters<typeof changed>[1]) => void;

interface SegmentProps {
  readonly plan: Plan;
  readonly sheet: SegmentReport;
  readonly settings: BusSettings | undefined;
  readonly onChange: Change;
}

/** What the window says, and the steps that it proposes. */
function Advice({ plan, sheet, settings, onChange, connected }: SegmentProps & { readonly connected: boolean }) {
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
        <Button size="compact-xs" variant="outline" onClick={() => onChange({ addedOhms: sheet.add })}>
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
        <Button size="compact-xs" variant="default" onClick={() => onChange({ addedOhms: undefined })}>
          Take {formatSi(added, 'Ω')} away
        </Button>
      )}
    </div>
  );
}

/** What is known of the wires, and for the segment at the board its clock. */
function SettingFields({ plan, sheet: { capacitance, segment }, settings, onChange }: SegmentProps) {
  return (
    <div className={styles.fields}>
      <NumberInput
        size="xs"
        label="Wire length per line, cm"
        min={0}
        max={10_000}
        value={settings?.wireCm ?? ''}
        placeholder={`${capacitance.wire} assumed`}
        onBlur={(event) => commit(event.currentTarget.value, settings?.wireCm, (wireCm) => onChange({ wireCm }))}
      />
      <NumberInput
        size="xs"
        label="Measured capacitance, pF"
        min={1}
        max={100_000}
        value={settings?.picofarads ?? ''}
        placeholder={`${Math.round(capacitance.farads * 1e12)} assumed`}
        onBlur={(event) => commit(event.currentTarget.value, settings?.picofarads, (picofarads) => onChange({ picofarads }))}
      />
      {!segment.via && (
        <NativeSelect
          size="xs"
          label="Clock"
          value={String(settings?.hz ?? '')}
          data={[{ value: '', label: 'maximum of all devices' }, ...CLOCKS.map((hz) => ({ value: String(hz), label: formatSi(hz, 'Hz') }))]}
          onChange={(event) => {
            const hz = event.currentTarget.value === '' ? undefined : Number(event.currentTarget.value);
            onChange({ hz });
          }}
        />
      )}
      {!segment.via && <DrawerFields drawer={plan.drawer} />}
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
  const { edit } = useWorkbench();
  const { input, capacitance, segment } = sheet;
  const settings = connected ? plan.busSettings[segment.id] : undefined;
  const onChange: Change = (change) => {
    if (connected) edit([{ kind: 'bus-settings', segment: segment.id, settings: changed(settings, change) }]);
  };
  const own = { plan, sheet, settings, onChange };
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
        added={settings?.addedOhms}
        onAdd={connected ? (addedOhms) => onChange({ addedOhms }) : undefined}
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
