import type { RailReport, SupplyLine } from '@roof-chart/core/electrics/reports/railReport';
import type { Plan } from '@roof-chart/core/plan/plan';
import { formatSi } from '@roof-chart/core/quantity/format';
import { partSheet, type Sheets } from '@roof-chart/core/sheets/sheetIndex';
import type { Scale } from '../../ui/chart/placing';

const amps = (milliamps: number): string => formatSi(milliamps / 1000, 'A');

/** "57 mA on average, up to 120 mA of 300 mA". */
export function railWords({ rail, typicalMilliamps, peakMilliamps }: RailReport): string {
  const of = rail.budgetMilliamps === undefined ? '' : ` of ${amps(rail.budgetMilliamps)}`;
  return `${amps(typicalMilliamps)} average, ${amps(peakMilliamps)} peak${of}`;
}

/** The load: a part, its LEDs through board pins, or another rail. */
export function lineName(plan: Plan, line: SupplyLine): string {
  const part = plan.placements.find((p) => p.id === line.placement)?.name ?? '';
  if (line.what === 'board') return 'board';
  if (line.what === 'rail') return `${line.label} (derived)`;
  return line.what === 'leds' ? `${part}, LEDs` : part;
}

/** What the count of a part is a count of; undefined where there is nothing to count. */
export const unitOf = (plan: Plan, sheets: Sheets, line: SupplyLine): string | undefined => {
  const placement = plan.placements.find((p) => p.id === line.placement);
  return placement && line.what === 'part' ? partSheet(sheets, placement.sheet)?.sheet.supply?.unit : undefined;
};

/** An axis of milliamperes that holds the peak and the limit, with five to ten ticks. */
export function scaleOf({ rail, peakMilliamps }: RailReport): Scale {
  const most = Math.max(peakMilliamps, rail.budgetMilliamps ?? 0, 10) * 1.05;
  const step = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000, 5000].find((one) => most / one <= 8) ?? 10_000;
  const max = Math.ceil(most / step) * step;
  return {
    min: 0,
    max,
    log: false,
    ticks: Array.from({ length: max / step + 1 }, (_, n) => ({ at: n * step, label: amps(n * step) })),
  };
}

/** What the heat of a regulator means. */
export function heatWords({ regulator }: RailReport): string | undefined {
  if (!regulator) return undefined;
  const watts = formatSi(regulator.watts, 'W');
  const by = {
    linear: `Linear regulator: ${formatSi(regulator.dropVolts, 'V')} drop at ${amps(regulator.milliamps)}, ${watts} dissipation`,
    diode: `Series diode: up to ${formatSi(regulator.dropVolts, 'V')} drop at ${amps(regulator.milliamps)}, ${watts} dissipation`,
    converter: `Converter: ${watts} dissipation at ${amps(regulator.milliamps)}`,
  };
  const heat = by[regulator.kind];
  return regulator.kelvin === undefined
    ? `${heat}.`
    : `${heat}, ${Math.round(regulator.kelvin)} K temperature rise (limit 85 K in a warm enclosure).`;
}

/** The board's own current from a rail whose maximum is what remains for parts. */
export const besidesWords = ({ besides }: RailReport): string | undefined =>
  besides &&
  `The board draws another ${amps(besides.typicalMilliamps)}, ${amps(besides.peakMilliamps)} peak; the limit already accounts for it.`;
