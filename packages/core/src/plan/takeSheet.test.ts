import { shippedSheets } from '../../tests/catalogue';
import { add, edited, stick, wire } from '../../tests/makePlan';
import type { BoardSheet } from '../sheets/boardSheet';
import type { PartSheet } from '../sheets/partSheet';
import { indexSheets } from '../sheets/sheetIndex';
import { applyEdit } from './applyEdits';
import type { Edit } from './edit';
import type { Plan } from './plan';

const shipped = shippedSheets();
const CLOCK = shipped.parts.get('clock-ds3231-eeprom')!.sheet;
const BOARD = shipped.boards.get('rp2040-stick-40')!.sheet;
const [STRAP] = CLOCK.bus.straps!;
const STATE = STRAP!.states[0]!.id;

/** The shipped sheets with a second version of the clock and of the board. */
const withSecond = (part: Partial<PartSheet>, board: Partial<BoardSheet> = {}) =>
  indexSheets([
    ...[...shipped.boards.values(), ...shipped.parts.values()].map(({ sheet }) => sheet),
    { ...CLOCK, ...part, version: 2 },
    { ...BOARD, ...board, version: 2 },
  ]);
const without = (terminal: string): Partial<PartSheet> => ({
  terminals: { ...CLOCK.terminals, list: CLOCK.terminals.list.filter(({ id }) => id !== terminal) },
});
const plan: Plan = edited(
  stick(),
  shipped,
  { kind: 'add-placement', placement: { id: 'clock', sheet: { id: CLOCK.id, version: 1 }, name: 'Clock', straps: { [STRAP!.id]: STATE } } },
  add('oled', 'oled-096-ssd1306-i2c'),
  wire('clock:SDA', 'GP4'),
  wire('oled:SCL', 'clock:SCL'),
);
const take = (placement: string | null, version = 2): Edit => ({ kind: 'take-sheet', placement, version });
const refusedAt = (edit: Edit, sheets = withSecond({})) => {
  const result = applyEdit(plan, edit, sheets);
  return result.ok ? 'taken' : `${result.problem.path}: ${result.problem.expected}`;
};

test('another version of a part is taken, and undone', () => {
  const sheets = withSecond({});
  const taken = applyEdit(plan, take('clock'), sheets);
  if (!taken.ok) throw new Error('refused');
  expect(taken.plan.placements[0]!.sheet).toEqual({ id: CLOCK.id, version: 2 });
  expect(taken.plan.placements[0]!.straps).toEqual({ [STRAP!.id]: STATE });
  const back = applyEdit(taken.plan, taken.inverse[0]!, sheets);
  expect(back.ok && back.plan).toEqual(plan);
});

test('a part or version that is not there is refused', () => {
  expect(refusedAt(take('nothing'))).toBe('placement: a part of this plan');
  expect(refusedAt(take('clock', 3))).toBe(`version: an available version of ${CLOCK.id}`);
  expect(refusedAt(take(null, 3))).toBe(`version: an available version of ${BOARD.id}`);
});

test('a version without a terminal that is wired is refused: from it, or to it', () => {
  expect(refusedAt(take('clock'), withSecond(without('SDA')))).toBe('version: a version that still has the wired terminal SDA');
  expect(refusedAt(take('clock'), withSecond(without('SCL')))).toBe('version: a version that still has the wired terminal SCL');
  expect(refusedAt(take('clock'), withSecond(without('SQW')))).toBe('taken');
});

test('a version without the strap, or without its state, is refused', () => {
  const others = CLOCK.bus.straps!.filter(({ id }) => id !== STRAP!.id);
  const straps = (list: PartSheet['bus']['straps']): Partial<PartSheet> => {
    const { straps: _, ...bus } = CLOCK.bus;
    return { bus: list ? { ...bus, straps: list } : bus };
  };
  const refusal = `version: a version that still has strap ${STRAP!.id} in state ${STATE}`;
  expect(refusedAt(take('clock'), withSecond(straps(others)))).toBe(refusal);
  expect(refusedAt(take('clock'), withSecond(straps(undefined)))).toBe(refusal);
  const fewer = { ...STRAP!, states: STRAP!.states.filter(({ id }) => id !== STATE) };
  expect(refusedAt(take('clock'), withSecond(straps([fewer, ...others])))).toBe(refusal);
  expect(refusedAt(take('clock'), withSecond(straps([...others, STRAP!])))).toBe('taken');
});

test('another version of the board is taken where every wire still ends somewhere', () => {
  const sheets = withSecond({});
  const taken = applyEdit(plan, take(null), sheets);
  if (!taken.ok) throw new Error('refused');
  expect(taken.plan.board).toEqual({ id: BOARD.id, version: 2 });
  const back = applyEdit(taken.plan, taken.inverse[0]!, sheets);
  expect(back.ok && back.plan).toEqual(plan);
  const pins = { ...BOARD.pins, list: BOARD.pins.list.filter(({ id }) => id !== 'GP4') };
  expect(refusedAt(take(null), withSecond({}, { pins }))).toBe('version: a version that still has the end of clock:SDA');
});

test('a new part is refused with a strap or a state that its sheet does not have, each with its place', () => {
  const adding = (straps: { readonly [strap: string]: string }): Edit => ({
    kind: 'add-placement',
    placement: { id: 'other', sheet: { id: CLOCK.id, version: 1 }, name: 'Other', straps },
  });
  const second = CLOCK.bus.straps![1]!;
  expect(refusedAt(adding({ [STRAP!.id]: STATE, [second.id]: second.states[0]!.id }))).toBe('taken');
  expect(refusedAt(adding({ [STRAP!.id]: 'sideways' }))).toBe(`placement.straps.${STRAP!.id}: a strap state of ${CLOCK.id}`);
  expect(refusedAt(adding({ none: STATE }))).toBe(`placement.straps.none: a strap state of ${CLOCK.id}`);
});
