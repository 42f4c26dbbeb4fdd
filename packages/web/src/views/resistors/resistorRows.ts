import { beforeFirst, entryOrThrow, orThrow } from '@roof-chart/core/collections/orThrow';
import { terminalText } from '@roof-chart/core/text/names';
import { TRANSISTOR_WORDS } from '@roof-chart/core/checks/fixes/transistors';
import { componentNames } from '@roof-chart/core/electrics/reports/components';
import type { PlanResistor } from '@roof-chart/core/electrics/reports/planResistors';
import type { Edit } from '@roof-chart/core/plan/edit';
import { type Plan, splitKey } from '@roof-chart/core/plan/plan';
import { formatSi } from '@roof-chart/core/quantity/format';
import { valuesWithin } from '@roof-chart/core/quantity/series';
import { boardSheet, type Sheets } from '@roof-chart/core/sheets/sheetIndex';

/** Where a resistor sits.
 *  @example 'Status LED anode' */
export function whereWords(plan: Plan, sheets: Sheets, { key, why }: PlanResistor): string {
  if (key !== undefined) return terminalText(plan, sheets, key);
  if (why.use !== 'bus') return '';
  const bus = boardSheet(sheets, plan.board)?.controllers.get(why.controller)?.title ?? why.controller;
  const behind = why.segment === why.controller ? undefined : plan.placements.find((p) => p.id === why.segment.split('.')[0])?.name;
  return behind === undefined ? `${bus}, each line` : `${bus} behind ${behind}, each line`;
}

const ROLES: { readonly [kind: string]: string } = { series: 'series', pull: 'pull', driver: 'base' };

/** Its reference designators: one, or one for each line of a bus; none while it is missing. */
export function namesOf(plan: Plan, sheets: Sheets, { id, key, ohms, why }: PlanResistor): readonly string[] {
  if (ohms === undefined) return [];
  const all = componentNames(plan, sheets);
  if (why.use === 'bus') return ['sda', 'scl'].flatMap((line) => all.get(`${why.segment}:bus.${line}`) ?? []);
  if (key === undefined) return [];
  const { placement, terminal } = splitKey(key);
  return [all.get(`${placement}:${ROLES[beforeFirst(id, ' ')]}.${terminal}`) ?? []].flat();
}

/** What it is there for. */
export function purposeWords({ why }: PlanResistor): string {
  switch (why.use) {
    case 'led':
      return why.led.digits > 1
        ? `LED series resistor, 1/${why.led.digits} duty`
        : why.led.anodes.length > 1
          ? `series resistor of ${why.led.anodes.length} LEDs in series`
          : 'LED series resistor';
    case 'divider-top':
      return `voltage divider R1, with ${formatSi(why.with, 'Ω')}`;
    case 'divider-bottom':
      return `voltage divider R2 to ground, with ${formatSi(why.with, 'Ω')}`;
    case 'series':
      return 'series resistor';
    case 'pull-up':
      return 'pull-up';
    case 'pull-down':
      return 'pull-down';
    case 'bus':
      return 'bus pull-up';
    case 'current-set': {
      const { amps, totalAmps } = why.driver;
      if (!amps || !totalAmps) return 'current-setting resistor';
      return `segment current ${formatSi(amps.min, 'A')} to ${formatSi(amps.max, 'A')}; whole driver up to ${formatSi(totalAmps.max, 'A')} with all segments lit`;
    }
    case 'base':
      return `${why.kind.endsWith('mos') ? 'gate' : 'base'} of ${TRANSISTOR_WORDS[why.kind]}`;
  }
}

/** The edit that changes or removes a resistor. */
export function resistorEdit(plan: Plan, { id, key, why }: PlanResistor, ohms: number | null): Edit {
  if (why.use === 'bus') {
    const { addedOhms: _before, ...others } = plan.busSettings[why.segment] ?? {};
    const settings = ohms === null ? others : { ...others, addedOhms: ohms };
    return { kind: 'bus-settings', segment: why.segment, settings: Object.keys(settings).length > 0 ? settings : null };
  }
  const terminal = orThrow(key, 'terminal of the resistor');
  const at = splitKey(terminal);
  if (why.use === 'base')
    return { kind: 'driver', ...at, driver: ohms === null ? null : { ...plan.drivers[terminal], kind: why.kind, ohms } };
  if (id.startsWith('pull')) {
    const to = entryOrThrow(plan.pulls, terminal).to;
    return { kind: 'pull', ...at, pull: ohms === null ? null : { ohms, to } };
  }
  return { kind: 'series', ...at, ohms };
}

/** The next value on hand from one, up or down; undefined at its end. */
export function stepped(plan: Plan, ohms: number, by: 1 | -1): number | undefined {
  const values = valuesWithin(plan.valuesOnHand, 1, 1e7);
  const near = 1e-9;
  return by > 0 ? values.find((value) => value > ohms * (1 + near)) : values.findLast((value) => value < ohms * (1 - near));
}
