import fc from 'fast-check';
import { shippedSheets } from '../../../tests/catalogue';
import { findingsOf } from '../../../tests/checkHarness';
import { add, edited, stick, wire } from '../../../tests/makePlan';
import { runs } from '../../../tests/runs';
import { railsFor, supplyFault } from '../../assign/fit/railFit';
import { levelPairs } from '../../electrics/reports/levels';
import { applyEdits } from '../../plan/applyEdits';
import { newPlan } from '../../plan/plan';
import { additionOf } from '../../review/addition';
import type { BoardSheet, Rail } from '../../sheets/boardSheet';
import { CONDITIONS } from '../../sheets/condition';
import { sheetsUnder, voltsUnder } from '../../sheets/conditions';
import type { PartSheet } from '../../sheets/partSheet';
import { indexSheets } from '../../sheets/sheetIndex';

const sheets = shippedSheets();
const board = sheets.boards.get('rp2040-stick-40')!;
const aRail: Rail = {
  id: 'x',
  label: 'X',
  volts: { min: 4.5, typ: 5, max: 5.25 },
  usual: { min: 4.75, max: 5.25 },
  feed: '',
  direction: 'out',
};

/** The level of what a part alone on a board is told by a check. */
function alone(boardId: string, part: string, code: string): readonly string[] {
  const empty = newPlan('p', 'P', { id: boardId, version: sheets.boards.get(boardId)!.sheet.version });
  const added = applyEdits(empty, additionOf(empty, sheets, sheets.parts.get(part)!.sheet)!.edits, sheets);
  if (!added.ok) throw new Error(part);
  return findingsOf(added.plan, sheets)
    .filter((f) => f.code === code)
    .map((f) => f.level);
}

describe('a supply is judged by how likely its voltage is', () => {
  const of = (volts: { min: number; max: number }, absoluteMaxVolts?: number) => {
    const part = sheets.parts.get('can-mcp2515')!.sheet;
    const supply = { ...part.supply!, volts, ...(absoluteMaxVolts === undefined ? {} : { absoluteMaxVolts }) };
    const sheet: PartSheet = { ...part, supply };
    return supplyFault(
      board,
      sheet,
      sheet.terminals.list.find((t) => t.role === 'supply.vcc')!,
      aRail,
    );
  };

  test.each([
    ['the range holds the extremes', of({ min: 4.5, max: 5.5 }), undefined],
    ['only the extreme is below', of({ min: 4.75, max: 5.5 }), { trouble: 'sags-low', from: 'extreme' }],
    ['the usual range ends within 3 % of it', of({ min: 4.85, max: 5.5 }), { trouble: 'sags-low', from: 'extreme' }],
    ['the usual range is well below', of({ min: 4.95, max: 5.5 }), { trouble: 'sags-low', from: 'usual' }],
    ['the nominal voltage is a little below', of({ min: 5.1, max: 5.5 }), { trouble: 'sags-low', from: 'usual' }],
    ['the nominal voltage is far below', of({ min: 5.5, max: 6 }), { trouble: 'too-low', from: 'nominal' }],
    ['the extreme is above the range', of({ min: 3, max: 5.2 }), { trouble: 'above-range', from: 'extreme' }],
    [
      'the nominal voltage is above the range, not above what destroys',
      of({ min: 3, max: 4 }, 6),
      { trouble: 'above-range', from: 'usual' },
    ],
    ['the usual voltage destroys', of({ min: 3, max: 4 }, 5.2), { trouble: 'too-high', from: 'nominal' }],
  ])('%s', (_, found, expected) => expect(found).toEqual(expected));

  test('a wider rail is never judged milder, and every rail that is offered lets the part live', () => {
    const parts = [...sheets.parts.values()].map((p) => p.sheet).filter((p) => p.supply);
    const weight = (rail: Rail, part: PartSheet, terminal: string) => {
      const found = supplyFault(
        board,
        part,
        part.terminals.list.find((t) => t.id === terminal)!,
        rail,
      );
      return found ? CONDITIONS.length - CONDITIONS.indexOf(found.from) : 0;
    };
    fc.assert(
      fc.property(
        fc.constantFrom(...parts),
        fc.double({ min: 1.5, max: 12, noNaN: true }),
        fc.double({ min: 0, max: 0.2, noNaN: true }),
        (part, typ, half) => {
          const supply = part.terminals.list.find((t) => t.role === 'supply.vcc');
          if (!supply) return;
          const at = (share: number): Rail => ({
            ...aRail,
            volts: { min: typ * (1 - share), typ, max: typ * (1 + share) },
            usual: { min: typ * (1 - share / 2), max: typ * (1 + share / 2) },
          });
          expect(weight(at(half), part, supply.id)).toBeLessThanOrEqual(weight(at(half * 1.5), part, supply.id));
          for (const rail of railsFor(board, part, supply)) expect(supplyFault(board, part, supply, rail)?.from).not.toBe('nominal');
        },
      ),
      { numRuns: runs(300) },
    );
  });
});

test('what practitioners do every day is no error and no warning', () => {
  const threeVolts = [...sheets.boards.values()].filter(({ sheet }) => sheet.logicRail === '3v3').map(({ sheet }) => sheet.id);
  expect(threeVolts.length).toBeGreaterThan(10);
  for (const id of threeVolts) expect([id, alone(id, 'humidity-dht22', 'supply-wrong')]).toEqual([id, ['hint']]);
  // A sensor of 3.3 V read by 5 V logic: high by a tenth of a volt at nominal supplies.
  expect(alone('atmega328p-5v-shield', 'motion-pir', 'level-no-margin').filter((level) => level !== 'hint')).toEqual([]);
  // USB less a diode: 4.4 V at the low end of what is usual.
  const warned = [...sheets.parts.keys()].filter((part) =>
    alone('esp8266-stick-30', part, 'supply-wrong').some((level) => level !== 'hint'),
  );
  // Below its range: 4.75 V to 5.25 V; and above it: 3.4 V to 4.4 V.
  expect(warned).toEqual(['can-mcp2515', 'gsm-sim800l']);
  expect(alone('esp8266-stick-30', 'relay-active-high', 'terminal-unwired')).toEqual([]);
});

describe('a level is judged by how likely its supplies are', () => {
  const strip = edited(
    stick(),
    sheets,
    add('s', 'strip-ws2812b'),
    wire('s:VCC', 'rail vbus'),
    wire('s:GND', 'ground'),
    wire('s:DIN', 'GP2'),
  );

  test('margins grow as supplies come nearer to their nominal voltage', () => {
    const margins = CONDITIONS.map((condition) => levelPairs(strip, sheetsUnder(sheets, condition)).map((p) => p.marginHigh));
    expect(margins[0]![0]).toBeGreaterThan(margins[1]![0]!);
    expect(margins[1]![0]).toBeGreaterThan(margins[2]![0]!);
    expect(voltsUnder(aRail, 'nominal')).toEqual({ min: 5, typ: 5, max: 5 });
  });

  test('a high above the middle of both thresholds is a warning, one below it an error', () => {
    const told = (volts: number) => {
      const low = (sheet: BoardSheet): BoardSheet => ({
        ...sheet,
        rails: { ...sheet.rails, list: sheet.rails.list.map((r) => (r.id === '3v3' ? { ...r, volts: { min: volts, max: volts } } : r)) },
        electrical: { ...sheet.electrical, vohMin: { volts: volts - 0.1, atMilliamps: 4 } },
      });
      const others = [...sheets.boards.values()].map(({ sheet }) => (sheet.id === 'rp2040-stick-40' ? low(sheet) : sheet));
      const own = indexSheets([...others, ...[...sheets.parts.values()].map((p) => p.sheet)]);
      return findingsOf(strip, own).find((f) => f.code === 'level-no-margin')?.level;
    };
    expect([3.3, 2.7, 1.8].map(told)).toEqual(['risk', 'risk', 'clash']);
  });
});
