import Papa from 'papaparse';
import { placementText, terminalText } from '../text/names';
import { TRANSISTOR_WORDS } from '../checks/fixes/transistors';
import { type Component, planComponents } from '../electrics/reports/components';
import type { Plan } from '../plan/plan';
import { formatSi } from '../quantity/format';
import type { Sheets } from '../sheets/sheetIndex';
import { stepHolesText } from '../text/views/holeText';
import { pointText } from './componentText';
import { holesOfComponent } from './holes/stepHoles';

const COLUMNS = ['Name', 'Kind', 'Value', 'Legs', 'Belongs to'] as const;

function rowOf(plan: Plan, sheets: Sheets, component: Component): readonly string[] {
  const { name, kind, value, transistor, ends, key, placement } = component;
  const legs = ends.map(({ leg, at }) => [...(leg ? [leg] : []), pointText(plan, sheets, at)].join(': '));
  const owner = key === undefined ? (placement === undefined ? 'bus' : placementText(plan, placement)) : terminalText(plan, sheets, key);
  return [
    name,
    transistor ? TRANSISTOR_WORDS[transistor.kind] : kind,
    value === undefined ? '' : formatSi(value, kind === 'capacitor' ? 'F' : 'Ω'),
    legs.join('; '),
    owner,
    ...(plan.breadboard ? [stepHolesText(plan, sheets, holesOfComponent(plan, sheets, component.id))] : []),
  ];
}

/** The components that are added to the parts as a table by RFC 4180, with their legs. Cells that a spreadsheet would take for a formula
 *  begin with an apostrophe. Undefined where there are none. */
export function componentsCsv(plan: Plan, sheets: Sheets): string | undefined {
  const components = planComponents(plan, sheets);
  if (components.length === 0) return undefined;
  const cells = components.map((one) => rowOf(plan, sheets, one).map((text) => text.replace(/[\r\n\u2028\u2029]+/g, ' ')));
  return `${Papa.unparse({ fields: [...COLUMNS, ...(plan.breadboard ? ['Holes'] : [])], data: cells }, { escapeFormulae: true })}\r\n`;
}
