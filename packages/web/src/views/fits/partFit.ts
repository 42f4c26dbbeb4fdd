import { sayFinding } from '@roof-chart/core/checks/say';
import type { TerminalKey } from '@roof-chart/core/plan/plan';
import { type Addition, type AdditionVerdict, additionVerdict } from '@roof-chart/core/review/addition';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';

/** An addition in short: what the list of all parts shows of it. */
export interface PartFit {
  readonly part: string;
  readonly verdict: AdditionVerdict;
  readonly pins: number;
  readonly moved: readonly TerminalKey[];
  readonly open: number;
  readonly findings: readonly string[];
}

/** What of an addition the list shows. */
export function partFitOf(addition: Addition, sheets: Sheets): PartFit {
  return {
    part: addition.part,
    verdict: additionVerdict(addition),
    pins: addition.pins,
    moved: addition.moved,
    open: addition.open.length,
    findings: addition.added.filter((f) => f.level !== 'hint').map((f) => sayFinding(addition.plan, sheets, f).title),
  };
}
