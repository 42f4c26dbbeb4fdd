import type { BenchNotes } from '../../sheets/benchNote';
import { covers } from '../../sheets/benchNote';
import { factsOf } from '../../sheets/factPath';
import type { BoardSheet } from '../../sheets/boardSheet';
import type { PartSheet } from '../../sheets/partSheet';
import type { Sourced } from '../../sheets/source';
import { partSheet } from '../../sheets/sheetIndex';
import type { Check, CheckContext } from '../engine/check';

/** Groups whose numbers or positions the review uses. */
const BOARD_GROUPS = ['pins', 'controllers', 'rails', 'electrical', 'memory'] as const;
const PART_GROUPS = ['terminals', 'bus', 'supply', 'levels', 'module'] as const;

function groupsOf(sheet: BoardSheet | PartSheet): readonly (readonly [string, Sourced])[] {
  if (sheet.kind === 'board') return BOARD_GROUPS.map((name) => [name, sheet[name]] as const);
  // Of the components on a module only pull-ups matter to a plan; a part without a bus has no relevant bus facts.
  const used = PART_GROUPS.filter((name) => (name === 'module' ? sheet.module.pullUps : name === 'bus' ? sheet.bus.kind !== 'none' : true));
  return used.flatMap((name) => (sheet[name] ? [[name, sheet[name]] as const] : []));
}

/** Whether every fact of a group was confirmed or measured. */
function confirmed(notes: BenchNotes, sheet: string, group: string, facts: Sourced): boolean {
  const own = Object.values(notes).filter((note) => note.sheet === sheet);
  if (own.length === 0) return false;
  const { source: _, ...said } = facts;
  return factsOf(said, group).every(({ path }) => path.endsWith('/id') || own.some((note) => covers(note, path)));
}

/** The sheets of a plan, each once, with their typical and unconfirmed groups. */
function leaning({ plan, sheets, board }: CheckContext) {
  const parts = plan.placements.flatMap((p) => partSheet(sheets, p.sheet)?.sheet ?? []);
  return [...new Set<BoardSheet | PartSheet>([board.sheet, ...parts])].flatMap((sheet) => {
    const open = groupsOf(sheet).filter(([, facts]) => facts.source.trust === 'typical');
    const groups = open.filter(([name, facts]) => !confirmed(plan.benchNotes, sheet.id, name, facts)).map(([name]) => name);
    return groups.length > 0 ? [{ sheet: { id: sheet.id, version: sheet.version }, groups }] : [];
  });
}

export const sheetUnverified: Check = {
  code: 'sheet-unverified',
  question: 'Which facts of the sheets in use are unverified?',
  planWide: true,
  about: 'facts',
  messages: {
    typical: {
      title: 'Sheets with unverified data: {count}',
      text: 'These values are typical for such modules; compare them with yours before soldering.',
      why: 'Typical and unverified: {facts}. Confirm or correct them under “Facts”; a measured value overrides the sheet.',
    },
  },
  remedies: {},
  examine: (context) => {
    if (context.plan.placements.length === 0) return [];
    const found = leaning(context);
    if (found.length === 0) return [];
    return [
      {
        level: 'hint',
        message: 'typical',
        place: {},
        data: { count: { is: 'count', value: found.length }, facts: { is: 'facts', of: found } },
        remedies: () => [],
      },
    ];
  },
};
