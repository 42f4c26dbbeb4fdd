import type { Plan } from '../plan/plan';
import type { Sheets } from '../sheets/sheetIndex';
import { chartSvg } from './chartSvg';
import { constantSet, type ConstantSet } from './constants/constantSet';
import { writeOverlay } from './constants/overlay';
import { writeC, writeCpp, writeJson, writeMicroPython, writeRust, writeToml, writeYaml } from './constants/writers';
import { componentsCsv } from './componentTable';
import { holeSvg } from './holes/holeSvg';
import { wiringSvg } from './wiring/wiringSvg';
import { wiresCsv, wiresMarkdown } from './wireTable';

/** What formats are for. */
export const EXPORT_GROUPS = ['Programs', 'Data', 'Tables', 'Pictures'] as const;

/** One file that a plan can be written to. */
export interface ExportFormat {
  readonly id: string;
  readonly group: (typeof EXPORT_GROUPS)[number];
  readonly words: string;
  /** What follows the plan's name in the name of the file. */
  readonly ending: string;
  readonly type: string;
  /** The text; undefined where the plan has nothing for it. */
  write(plan: Plan, sheets: Sheets): string | undefined;
}

const constants =
  (write: (set: ConstantSet) => string) =>
  (plan: Plan, sheets: Sheets): string | undefined => {
    const set = constantSet(plan, sheets);
    return set && write(set);
  };

/** Every format, in the order that they are offered in. */
export const EXPORT_FORMATS: readonly ExportFormat[] = [
  { id: 'cpp', group: 'Programs', words: 'Constants for C++', ending: '.hpp', type: 'text/x-c++', write: constants(writeCpp) },
  { id: 'c', group: 'Programs', words: 'Constants for C', ending: '.h', type: 'text/x-c', write: constants(writeC) },
  {
    id: 'micropython',
    group: 'Programs',
    words: 'Constants for MicroPython',
    ending: '.py',
    type: 'text/x-python',
    write: constants(writeMicroPython),
  },
  { id: 'rust', group: 'Programs', words: 'Constants for Rust', ending: '.rs', type: 'text/rust', write: constants(writeRust) },
  { id: 'overlay', group: 'Programs', words: 'Device tree overlay', ending: '.dts', type: 'text/plain', write: writeOverlay },
  {
    id: 'json',
    group: 'Data',
    words: 'Constants as JSON',
    ending: '.constants.json',
    type: 'application/json',
    write: constants(writeJson),
  },
  { id: 'yaml', group: 'Data', words: 'Constants as YAML', ending: '.yaml', type: 'application/yaml', write: constants(writeYaml) },
  { id: 'toml', group: 'Data', words: 'Constants as TOML', ending: '.toml', type: 'application/toml', write: constants(writeToml) },
  { id: 'csv', group: 'Tables', words: 'Wire list, CSV', ending: '.csv', type: 'text/csv', write: wiresCsv },
  { id: 'components', group: 'Tables', words: 'Components, CSV', ending: '.components.csv', type: 'text/csv', write: componentsCsv },
  { id: 'markdown', group: 'Tables', words: 'Wire list, Markdown', ending: '.md', type: 'text/markdown', write: wiresMarkdown },
  { id: 'svg', group: 'Pictures', words: 'Chart, SVG', ending: '.svg', type: 'image/svg+xml', write: chartSvg },
  { id: 'wiring', group: 'Pictures', words: 'Wiring picture, SVG', ending: '.wiring.svg', type: 'image/svg+xml', write: wiringSvg },
  { id: 'holes', group: 'Pictures', words: 'Hole plan, SVG', ending: '.holes.svg', type: 'image/svg+xml', write: holeSvg },
];

/** The file name of a plan: letters, digits and dashes.
 *  @example fileName('Hive watch', '.hpp') // 'hive-watch.hpp' */
export function fileName(name: string, ending: string): string {
  const bare = name
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 60);
  return `${bare || 'plan'}${ending}`;
}
