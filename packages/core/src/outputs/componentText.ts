import { orThrow } from '../collections/orThrow';
import { placementText, terminalText } from '../text/names';
import { TRANSISTOR_WORDS } from '../checks/fixes/transistors';
import { type Component, type ComponentPoint, componentNames } from '../electrics/reports/components';
import { type Plan, terminalKey } from '../plan/plan';
import { formatSi } from '../quantity/format';
import type { Sheets } from '../sheets/sheetIndex';
import { endText } from './endText';

/** A component with its value.
 *  @example componentText(resistor) // 'R1 (220 Ω)' */
export function componentText({ name, kind, value, transistor }: Pick<Component, 'name' | 'kind' | 'value' | 'transistor'>): string {
  if (transistor) return `${name} (${TRANSISTOR_WORDS[transistor.kind]})`;
  if (kind === 'diode') return `${name} (flyback diode)`;
  const size = formatSi(orThrow(value, 'value'), kind === 'capacitor' ? 'F' : 'Ω');
  return `${name} (${kind === 'trimmer' ? `${size} trimmer` : size})`;
}

/** Where an end of a component goes, as it is printed there.
 *  @example pointText(plan, sheets, { to: 'component', id: 'lcd:transistor.A', leg: 'base' }) // 'Q1 base' */
export function pointText(plan: Plan, sheets: Sheets, point: ComponentPoint): string {
  switch (point.to) {
    case 'component':
      return [componentNames(plan, sheets).get(point.id) ?? point.id, point.leg].filter(Boolean).join(' ');
    case 'key':
      return `${placementText(plan, point.placement)} key ${point.key}`;
    case 'terminal':
      return terminalText(plan, sheets, terminalKey(point.placement, point.terminal));
    default:
      return endText(plan, sheets, point);
  }
}
