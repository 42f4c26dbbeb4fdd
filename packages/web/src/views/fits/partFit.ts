import { sayFinding } from '@roof-chart/core/checks/say';
import type { TerminalKey } from '@roof-chart/core/plan/plan';
import type { Addition } from '@roof-chart/core/review/addition';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';

export const PART_VERDICTS = ['fits', 'moves', 'risk', 'no'] as const;
/** `fits`: beside what is there; `moves`: other wires must give way; `risk`: it works, with findings that are no clash;
 *  `no`: something of it finds no place, or clashes. */
export type PartVerdict = (typeof PART_VERDICTS)[number];

/** An addition in short: what the list of all parts shows of it. */
export interface PartFit {
  readonly part: string;
  readonly verdict: PartVerdict;
  readonly pins: number;
  readonly moved: readonly TerminalKey[];
  readonly open: number;
  readonly findings: readonly string[];
}

/** What of an addition the list shows. */
export function partFitOf(addition: Addition, sheets: Sheets): PartFit {
  const clash = addition.open.length > 0 || addition.added.some((f) => f.level === 'clash');
  const risk = addition.added.some((f) => f.level === 'risk');
  return {
    part: addition.part,
    verdict: clash ? 'no' : risk ? 'risk' : addition.moved.length > 0 ? 'moves' : 'fits',
    pins: addition.pins,
    moved: addition.moved,
    open: addition.open.length,
    findings: addition.added.filter((f) => f.level !== 'hint').map((f) => sayFinding(addition.plan, sheets, f).title),
  };
}
