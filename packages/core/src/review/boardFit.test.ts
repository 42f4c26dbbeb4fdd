import fc from 'fast-check';
import type { Finding } from '../checks/engine/check';
import { NO_COSTS } from '../assign/model/weights';
import type { BoardFit } from './boardFit';
import { compareFits } from './boardFit';

const findings = (clash: number, risk: number): readonly Finding[] =>
  [...Array.from({ length: clash }, () => 'clash'), ...Array.from({ length: risk }, () => 'risk'), 'hint'].map(
    (level) => ({ level }) as Finding,
  );

interface Told {
  readonly board: string;
  readonly verdict?: BoardFit['verdict'];
  readonly open?: number;
  readonly clash?: number;
  readonly risk?: number;
  readonly caution?: number;
  readonly pins?: number;
}

const fit = ({ board, verdict = 'fits', open = 0, clash = 0, risk = 0, caution = 0, pins = 9 }: Told): BoardFit =>
  ({
    board,
    verdict,
    open: Array.from({ length: open }, (_, n) => `p:${n}`),
    findings: findings(clash, risk),
    costs: { ...NO_COSTS, caution },
    headRoom: { pins },
  }) as unknown as BoardFit;

/** The best first: each is worse than the one before it in one respect, and better in all that count less. */
const RANKED: readonly Told[] = [
  { board: 'm' },
  { board: 'n' },
  { board: 'a', pins: 8 },
  { board: 'a', caution: 1, pins: 20 },
  { board: 'a', caution: 2, pins: 30 },
  { board: 'a', risk: 1, pins: 30 },
  { board: 'a', risk: 2, pins: 30 },
  { board: 'a', verdict: 'clashes', clash: 1 },
  { board: 'a', verdict: 'clashes', clash: 1, risk: 3 },
  { board: 'a', verdict: 'clashes', clash: 2 },
  { board: 'a', verdict: 'unknown', open: 1, clash: 2 },
  { board: 'a', verdict: 'unknown', open: 2 },
  { board: 'a', verdict: 'open', open: 1, clash: 3 },
  { board: 'a', verdict: 'open', open: 2, pins: 30 },
];

test('boards in order: what fits, fewer open terminals, errors, warnings and caveats, more free pins, then by name', () => {
  const ranked = RANKED.map(fit);
  fc.assert(
    fc.property(fc.shuffledSubarray(ranked, { minLength: 2 }), (some) => {
      expect(some.toSorted(compareFits)).toEqual(ranked.filter((one) => some.includes(one)));
    }),
  );
});
