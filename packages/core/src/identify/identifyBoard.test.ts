import fc from 'fast-check';
import { shippedSheets } from '../../tests/catalogue';
import { BOARD_TRAITS } from './boardTraits';
import { edgesOf, identifyBoard, logicNominal, onlyOn, pinCount, searchBoards } from './identifyBoard';

const sheets = shippedSheets();
const boards = [...sheets.boards.values()].map(({ sheet }) => sheet);
const found = (text: string) => searchBoards(boards, text).map(({ id }) => id);
const board = (id: string) => sheets.boards.get(id)!.sheet;

test.each([
  ['esp32 usb-c 16 pins', ['esp32-c3-stick-16']],
  ['rp2040 40 pins', ['rp2040-stick-40']],
  ['stamp bluetooth', ['nrf52840-stamp-14']],
  ['linux', ['bcm2711-sbc-40']],
  ['5 V stick', ['atmega328p-5v-stick-30']],
  ['dip 5V', ['atmega32a-5v-dip-40', 'pic16f1829-5v-dip-20']],
  ['shield usb-b', ['atmega2560-5v-shield', 'atmega328p-5v-shield']],
  ['wroom', ['esp32-stick-38']],
  ['cortex-m33', ['rp2350-stick-40']],
  ['stm32 64-pin', ['stm32f411-shield-64', 'stm32f446-shield-64']],
  ['no such board', []],
])('%s finds %j', (text, ids) => expect(found(text)).toEqual(expect.arrayContaining(ids)));

test('traits narrow down: a voltage, a number of pins and a connector are not words', () => {
  expect(found('wroom')).toEqual(['esp32-stick-30', 'esp32-stick-38']);
  expect(found('5 V').every((id) => logicNominal(board(id)) > 4.5)).toBe(true);
  expect(found('14 pins').length).toBeGreaterThan(2);
  expect(found('14 pins').every((id) => pinCount(board(id)) === 14)).toBe(true);
  // Two boards count a debug header or a second row beside the forty that they are called by.
  expect(found('40 pins 3.3 V')).toEqual(expect.arrayContaining(['bcm2711-sbc-40', 'rp2040-stick-40', 'stm32f103-stick-40']));
  expect(found('40 pins 3.3 V').every((id) => Math.abs(logicNominal(board(id)) - 3.3) < 0.1)).toBe(true);
  expect(found('')).toHaveLength(boards.length);
});

test('a row of printed labels finds its board, in either direction', () => {
  const [row] = edgesOf(board('atmega328p-5v-stick-30'));
  const labels = row!.pins.map(({ label }) => label);
  for (const text of [labels.join(' '), labels.toReversed().join(', '), labels.slice(2, 9).join('|')])
    expect([text, identifyBoard(boards, text)[0]!.board.id]).toEqual([text, 'atmega328p-5v-stick-30']);
  expect(found(labels.slice(0, 6).join(' '))[0]).toBe('atmega328p-5v-stick-30');
});

test('every edge of every board names its board, or one that prints the same', () => {
  for (const one of boards)
    for (const { pins } of edgesOf(one)) {
      if (pins.length < 6) continue;
      const text = pins.map(({ label }) => label.replace(/\s/g, '')).join(' ');
      const [first] = identifyBoard(boards, text);
      const own = identifyBoard(boards, text).find((match) => match.board.id === one.id)!;
      expect([one.id, own.score >= first!.score - 1e-9]).toEqual([one.id, true]);
    }
});

test('a label that is not there is told, and a few wrong ones do not hide the board', () => {
  const [best] = identifyBoard(boards, 'GP0 GP1 GND GP2 GP3 XYZ');
  expect([best!.board.id, best!.strange, best!.matched]).toEqual(['rp2040-stick-40', ['XYZ'], 5]);
  // GND is printed eight times: the ninth is one too many.
  const many = identifyBoard([board('rp2040-stick-40')], Array(12).fill('GND').join(' '))[0];
  expect(many!.strange.length).toBeGreaterThan(0);
  expect(identifyBoard(boards, 'FOO BAR BAZ')).toEqual([]);
  expect(identifyBoard(boards, '')).toEqual([]);
});

test('look-alikes differ by labels: those that only one of them has', () => {
  expect(onlyOn(board('rp2040-stick-40'), board('rp2350-stick-40'))).toEqual([]);
  const labels = onlyOn(board('esp32-c3-stick-16'), board('esp32-stick-38'));
  expect(labels.length).toBeGreaterThan(0);
  expect(onlyOn(board('atmega328p-5v-shield'), board('atmega2560-5v-shield'))).not.toContain('D13');
});

test('any text is answered: two hundred labels, labels alike, ornament', () => {
  expect(identifyBoard(boards, Array(200).fill('D1 D1').join(' ')).length).toBeGreaterThanOrEqual(0);
  fc.assert(
    fc.property(fc.string({ unit: 'binary', maxLength: 300 }), (text) => {
      for (const { score, matched } of identifyBoard(boards, text))
        expect([score >= 0, score <= 1, matched > 0]).toEqual([true, true, true]);
      searchBoards(boards, text);
    }),
  );
});

test('rows of pins: a double row, or two edges', () => {
  expect(found('2x20 linux').toSorted()).toEqual(['bcm2711-sbc-40', 'bcm2712-sbc-40', 'bcm2835-sbc-40', 'bcm2837-sbc-40']);
  expect(found('2 × 15 esp32')).toEqual(['esp32-stick-30']);
  expect(found('2x7').every((id) => pinCount(board(id)) === 14)).toBe(true);
  expect(found('2x99')).toEqual([]);
});

test('every trait is of some boards and not of others, and a 5 V board behind a diode is one of 5 V', () => {
  for (const [trait, has] of Object.entries(BOARD_TRAITS)) {
    const count = boards.filter(has).length;
    expect([trait, count > 0 && count < boards.length]).toEqual([trait, true]);
  }
  for (const board of boards)
    expect([board.id, BOARD_TRAITS['3.3 V']!(board), BOARD_TRAITS['5 V']!(board)].filter(Boolean)).toHaveLength(2);
  expect(boards.filter(BOARD_TRAITS['bare chip']!).map(({ id }) => id)).toContain('attiny85-5v-dip-8');
});
