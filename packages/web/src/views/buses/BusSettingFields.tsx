import { NativeSelect, NumberInput } from '@mantine/core';
import type { BusSettings, Plan } from '@roof-chart/core/plan/plan';
import { formatSi } from '@roof-chart/core/quantity/format';
import { useWorkbench } from '../../state/workbench';
import { changed, commit } from '../../ui/busSettings';

/** What a plan has set of a bus or a segment of it, with a way to change it. */
export interface SettingsOfBus {
  readonly settings: BusSettings | undefined;
  readonly change: (change: Parameters<typeof changed>[1]) => void;
}

/** @param segment of a bus without a controller there is none, and nothing is set */
export function useBusSettings(plan: Plan, segment: string | undefined): SettingsOfBus {
  const { edit } = useWorkbench();
  const settings = segment === undefined ? undefined : plan.busSettings[segment];
  return {
    settings,
    change: (change) => {
      if (segment !== undefined) edit([{ kind: 'bus-settings', segment, settings: changed(settings, change) }]);
    },
  };
}

/** @param assumed in centimetres, where nothing is set */
export function WireLengthField({ bus: { settings, change }, assumed }: { readonly bus: SettingsOfBus; readonly assumed: number }) {
  return (
    <NumberInput
      size="xs"
      label="Wire length per line, cm"
      min={0}
      max={10_000}
      value={settings?.wireCm ?? ''}
      placeholder={`${assumed} assumed`}
      onBlur={(event) => commit(event.currentTarget.value, settings?.wireCm, (wireCm) => change({ wireCm }))}
    />
  );
}

interface ClockFieldProps {
  readonly bus: SettingsOfBus;
  readonly label: string;
  /** What there is where no clock is set. */
  readonly usual: string;
  /** In hertz. */
  readonly clocks: readonly number[];
}

export function ClockField({ bus: { settings, change }, label, usual, clocks }: ClockFieldProps) {
  return (
    <NativeSelect
      size="xs"
      label={label}
      value={String(settings?.hz ?? '')}
      data={[{ value: '', label: usual }, ...clocks.map((hz) => ({ value: String(hz), label: formatSi(hz, 'Hz') }))]}
      onChange={({ currentTarget: { value } }) => change({ hz: value === '' ? undefined : Number(value) })}
    />
  );
}
