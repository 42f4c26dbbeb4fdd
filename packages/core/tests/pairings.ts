import type { Finding, Level } from '../src/checks/check';
import { checkOf, isAboutFacts } from '../src/checks/registry';
import { sayRemedy } from '../src/checks/say';
import { applyEdits } from '../src/plan/applyEdits';
import { newPlan } from '../src/plan/plan';
import { additionOf } from '../src/review/addition';
import { reviewPlan } from '../src/review/review';
import { formsOf } from '../src/review/variants';
import type { Sheets } from '../src/sheets/sheetIndex';

/** What a part alone on a board is told. */
export interface Pairing {
  readonly board: string;
  readonly part: string;
  /** `error clash/message`, the kind that a reading is about. */
  readonly kind: string;
  readonly fixes: readonly string[];
  /** Forms of the part that have no error or warning on this board without a fix. */
  readonly forms: readonly string[];
  /** Boards on which the part has no error or warning without a fix. */
  readonly boards: readonly string[];
  /** What its check says to do where no change of the plan helps. */
  readonly otherwise: string | undefined;
}

const WORDS: { readonly [L in Level]: string } = { clash: 'error', risk: 'warning', hint: 'note' };

interface Found {
  readonly board: string;
  readonly part: string;
  readonly findings: readonly { readonly kind: string; readonly code: string; readonly fixes: readonly string[] }[];
}

const kindOf = ({ level, code, message }: Finding): string => `${WORDS[level]} ${code}/${message}`;

function found(sheets: Sheets, board: string, part: string): Found {
  const sheet = sheets.parts.get(part)!.sheet;
  const empty = newPlan('pairing', 'Pairing', { id: board, version: sheets.boards.get(board)!.sheet.version });
  const addition = additionOf(empty, sheets, sheet)!;
  const added = applyEdits(empty, addition.edits, sheets);
  if (!added.ok) throw new Error(`${part} on ${board}: ${added.problem.path}`);
  const reviewed = reviewPlan(added.plan, sheets);
  if (!reviewed.ok) throw new Error(`${part} on ${board} is not reviewed`);
  const grave = reviewed.review.findings.filter((f) => f.level !== 'hint' && !isAboutFacts(f));
  return {
    board,
    part,
    findings: grave.map((finding) => ({
      kind: kindOf(finding),
      code: finding.code,
      fixes: finding.remedies.map((remedy) => sayRemedy(added.plan, sheets, finding.code, remedy)),
    })),
  };
}

/** Every part of the sheets added alone to every board and wired, with the errors and warnings that its plan has. */
export function pairings(sheets: Sheets): readonly Pairing[] {
  const all = [...sheets.boards.keys()].flatMap((board) => [...sheets.parts.keys()].map((part) => found(sheets, board, part)));
  // A part is at home where it is told nothing, or nothing that one fix does not mend.
  const clean = new Set(
    all.filter(({ findings }) => findings.every(({ fixes }) => fixes.length > 0)).map(({ board, part }) => `${board} ${part}`),
  );
  return all.flatMap(({ board, part, findings }) =>
    findings.map((finding): Pairing => ({
      board,
      part,
      kind: finding.kind,
      fixes: finding.fixes,
      forms: formsOf(sheets, sheets.parts.get(part)!.sheet)
        .slice(1)
        .flatMap(({ id }) => (clean.has(`${board} ${id}`) ? [id] : [])),
      boards: [...sheets.boards.keys()].filter((id) => clean.has(`${id} ${part}`)),
      otherwise: checkOf(finding.code).otherwise,
    })),
  );
}

/** Rows with the same part and the same way out as one. */
function rowsOf(own: readonly Pairing[]): readonly string[] {
  const rows = new Map<string, Pairing[]>();
  for (const one of own) {
    const ways = one.fixes.length > 0 ? 'fix' : one.forms.length > 0 ? `form ${one.forms.join(' ')}` : one.boards.length > 0 ? 'board' : '';
    const key = `${one.part}\t${ways}`;
    rows.set(key, [...(rows.get(key) ?? []), one]);
  }
  return [...rows.values()].map((same) => {
    const [{ part, fixes, forms, boards, otherwise }] = same as [Pairing];
    const ways = [
      ...fixes.slice(0, 2),
      ...(fixes.length > 0 ? [] : forms.map((id) => `use ${id}`)),
      ...(fixes.length > 0 || boards.length === 0 ? [] : [`use one of ${boards.length} other boards`]),
      ...(fixes.length > 0 || otherwise === undefined ? [] : [otherwise]),
    ];
    return `| ${part} | ${same.map((one) => one.board).join(', ')} | ${ways.join('; ')} |`;
  });
}

/** The table as a page.
 *  @param readings of each kind: whether it is true, and why */
export function pairingPage(all: readonly Pairing[], readings: { readonly [kind: string]: string }, pairs: number): string {
  const kinds = new Map<string, Pairing[]>();
  for (const one of all) kinds.set(one.kind, [...(kinds.get(one.kind) ?? []), one]);
  const byCount = [...kinds].toSorted(([a, x], [b, y]) => y.length - x.length || (a < b ? -1 : 1));
  const clean = pairs - new Set(all.map((one) => `${one.board} ${one.part}`)).size;
  return [
    '# Every part alone on every board',
    '',
    'Made by `npm run docs:pairings`; a test fails when a line changes. Each part of the catalogue is added to an otherwise empty plan on each',
    'board and wired; below are the errors and warnings that the plan then has, kind by kind, with a reading of the kind and what helps. What',
    'helps is the fix as offered on the first board named; where there is none, another form of the part or another board.',
    '',
    `${pairs} pairs, ${clean} without an error or a warning.`,
    ...byCount.flatMap(([kind, own]) => [
      '',
      `## ${kind}: ${own.length}`,
      '',
      readings[kind] ?? 'NO READING',
      '',
      '| Part | Boards | What helps |',
      '| --- | --- | --- |',
      ...rowsOf(own),
    ]),
    '',
  ].join('\n');
}
