import { inComment } from '../../outputs/constants/names';
import { numberingOf, pinNumber } from '../../outputs/constants/constantSet';
import type { IndexedBoard } from '../../sheets/sheetIndex';
import cpp from './probe.cpp?raw';
import python from './probe.py?raw';

/** A program with what belongs to a board in place of the samples in its file, each of which is there once.
 *  @throws Error where the file has lost a sample */
function filledIn(program: string, values: readonly (readonly [sample: string, value: string])[]): string {
  return values.reduce((text, [sample, value]) => {
    const [before, after, ...more] = text.split(sample);
    if (before === undefined || after === undefined || more.length > 0) throw new Error(`“${sample}” is not in the program once`);
    return before + value + after;
  }, program);
}

/** The program that answers the line protocol on a board with MicroPython. Pins of chips without GPIO numbers go by the name of their port.
 *  @returns undefined where MicroPython does not run on the board, as far as its sheet knows */
export function probeMicroPython(board: IndexedBoard): string | undefined {
  if (!board.sheet.microPython) return undefined;
  const isGpio = numberingOf(board) === 'gpio';
  const pins = board.sheet.pins.list.flatMap((pin) => {
    if (pin.kind !== 'io' || pin.sameAs || pin.grade === 'reserved') return [];
    const number = isGpio ? pinNumber(board, pin) : undefined;
    return number === undefined && isGpio ? [] : [`    "${pin.id}": ${isGpio ? number : JSON.stringify(pin.port ?? pin.label)},\n`];
  });
  return filledIn(python, [
    ['BOARD_TITLE', inComment(board.sheet.title)],
    ['BOARD_ID', board.sheet.id],
    ['{"GP2": 2}', `{\n${pins.join('')}}`],
  ]);
}

/** The program that answers the line protocol on a chip of the ATmega family, straight on its registers; undefined for other chips. */
export function probeAvr(board: IndexedBoard): string | undefined {
  if (!/^ATmega/i.test(board.sheet.chip)) return undefined;
  const pins = board.sheet.pins.list.flatMap((pin) => {
    const match = pin.kind === 'io' && !pin.sameAs && pin.grade !== 'reserved' ? /^P([A-L])([0-7])$/.exec(pin.port ?? '') : null;
    if (!match) return [];
    const channel = pin.adc?.channel ?? 'NO_CHANNEL';
    return [`    {"${pin.id}", &DDR${match[1]}, &PORT${match[1]}, &PIN${match[1]}, ${match[2]}, ${channel}},`];
  });
  return filledIn(cpp, [
    ['BOARD_TITLE', inComment(board.sheet.title)],
    ['BOARD_ID', board.sheet.id],
    ['    {"D2", &DDRD, &PORTD, &PIND, 2, NO_CHANNEL},', pins.join('\n')],
  ]);
}
