import { findOrThrow } from '../collections/orThrow';
import Papa from 'papaparse';
import type { Plan } from '../plan/plan';
import type { Sheets } from '../sheets/sheetIndex';
import { buildList, type BuildWire } from './buildList';
import { componentText } from './componentText';
import { stepHolesText } from '../text/views/holeText';
import { endText } from './endText';
import { holesOfWire } from './holes/stepHoles';

const COLUMNS = [
  'Part',
  'Terminal',
  'Module pin',
  'To',
  'Header',
  'Position',
  'From end',
  'Port',
  'Colour',
  'In series',
  'Locked',
  'Done',
  'Bench note',
] as const;

/** With the holes of a planned breadboard. */
const columnsOf = (plan: Plan): readonly string[] => (plan.breadboard ? [...COLUMNS, 'Holes'] : COLUMNS);

function rowOf(plan: Plan, sheets: Sheets, wire: BuildWire): readonly string[] {
  const [at] = wire.at;
  return [
    findOrThrow(plan.placements, (p) => p.id === wire.placement).name,
    wire.label,
    String(wire.number),
    endText(plan, sheets, wire.end),
    at?.headerTitle ?? '',
    at ? String(at.position) : '',
    at ? `${at.fromEnd} from ${at.end}${at.row === undefined ? '' : `, ${at.row} row`}` : '',
    at?.port ?? '',
    wire.colour,
    wire.components.length > 0 ? wire.components.map(componentText).join(', ') : (wire.through ?? ''),
    wire.locked ? 'yes' : '',
    wire.ticked ? 'yes' : '',
    wire.note && wire.noteHolds ? `${wire.note.date}: ${wire.note.words}` : '',
    ...(plan.breadboard ? [stepHolesText(plan, sheets, holesOfWire(plan, sheets, wire))] : []),
  ];
}

function rowsOf(plan: Plan, sheets: Sheets): readonly (readonly string[])[] | undefined {
  const list = buildList(plan, sheets);
  return list && [...list.supplies, ...list.signals].map((wire) => rowOf(plan, sheets, wire));
}

/** The wires as a table by RFC 4180. Cells that a spreadsheet would take for a formula begin with an apostrophe. */
export function wiresCsv(plan: Plan, sheets: Sheets): string | undefined {
  const rows = rowsOf(plan, sheets);
  // A line break within a cell would put what follows at the beginning of a line, where a formula is read.
  const cells = rows?.map((row) => row.map((text) => text.replace(/[\r\n\u2028\u2029]+/g, ' ')));
  return cells && `${Papa.unparse({ fields: [...columnsOf(plan)], data: cells }, { escapeFormulae: true })}\r\n`;
}

const cell = (text: string): string => text.replace(/[\\|`*_<>[\]]/g, '\\$&').replace(/\s+/g, ' ');

/** The wires as a Markdown table. */
export function wiresMarkdown(plan: Plan, sheets: Sheets): string | undefined {
  const rows = rowsOf(plan, sheets);
  if (!rows) return undefined;
  const line = (cells: readonly string[]) => `| ${cells.join(' | ')} |`;
  return [
    `# ${cell(plan.name)}`,
    '',
    line(columnsOf(plan)),
    line(columnsOf(plan).map(() => '---')),
    ...rows.map((row) => line(row.map(cell))),
    '',
  ].join('\n');
}
