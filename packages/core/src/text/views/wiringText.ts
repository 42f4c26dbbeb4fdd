import { firstOrThrow } from '../../collections/orThrow';
import { placementText, terminalText } from '../names';
import { componentNames, type Component } from '../../electrics/reports/components';
import { boardOrThrow, partOf } from '../../plan/edit';
import { type Plan, terminalKey } from '../../plan/plan';
import { formatSi } from '../../quantity/format';
import type { Sheets } from '../../sheets/sheetIndex';
import type { Conductor, ConductorEnd, WiringModule } from '../../outputs/wiring/conductors';

/** @example endLabel(plan, sheets, end) // 'Clock SDA', or of a component 'R3' */
function endLabel(plan: Plan, sheets: Sheets, { module, terminal }: ConductorEnd): string {
  return componentNames(plan, sheets).get(module) ?? terminalText(plan, sheets, terminalKey(module, terminal));
}

/** What a conductor is called: ground, the label of a rail or pin, or of its first end.
 *  @example conductorName(plan, sheets, conductor) // 'GP4' */
export function conductorName(plan: Plan, sheets: Sheets, conductor: Conductor): string {
  const board = boardOrThrow(plan, sheets);
  if (conductor.kind === 'ground') return 'GND';
  if (conductor.id.startsWith('rail:')) {
    const id = conductor.id.slice('rail:'.length);
    const rail = board.sheet.rails.list.find((one) => one.id === id);
    return rail ? (rail.terminal ?? rail.label) : terminalText(plan, sheets, id);
  }
  const label = conductor.pins.map(([pin]) => board.pins.get(pin ?? '')?.label).filter(Boolean);
  return label.length > 0 ? label.join(' + ') : endLabel(plan, sheets, firstOrThrow(conductor.ends));
}

/** A conductor with everything at it.
 *  @example conductorText(plan, sheets, conductor) // 'GP4: OLED SDA, Clock SDA' */
export const conductorText = (plan: Plan, sheets: Sheets, conductor: Conductor): string =>
  `${conductorName(plan, sheets, conductor)}: ${conductor.ends.map((end) => endLabel(plan, sheets, end)).join(', ')}`;

/** The value of a component in short. @example valueText(resistor) // '4.7 kΩ' */
export const valueText = ({ kind, value, transistor }: Component): string =>
  transistor ? transistor.kind.toUpperCase() : value === undefined ? 'diode' : formatSi(value, kind === 'capacitor' ? 'F' : 'Ω');

/** The title of a module and its chip or value.
 *  @example moduleText(plan, sheets, module) // ['OLED 128×64', 'SSD1306'] */
export function moduleText(plan: Plan, sheets: Sheets, { id, component }: WiringModule): readonly [title: string, note: string] {
  if (component) return [component.name, valueText(component)];
  const chip = partOf(plan, id, sheets)?.sheet.chip ?? '';
  const title = placementText(plan, id);
  return [title, title.includes(chip) ? '' : chip];
}
