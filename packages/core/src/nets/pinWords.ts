import type { BoardPin } from '../sheets/boardSheet';
import type { IndexedBoard } from '../sheets/sheetIndex';

/** What a pin can do, as short words in a fixed order.
 *  @example pinAbilities(board, pin) // ['SPI0 MISO', 'I2C0 SDA', 'UART1 TX', 'PWM slice 2, 2A', 'interrupt'] */
export function pinAbilities(board: IndexedBoard, pin: BoardPin): readonly string[] {
  // A crossbar pin reaches every line of its controllers: naming each would bury what is its own.
  const direct = pin.crossbar ? (board.sheet.pins.list.find((p) => p.id === pin.id)?.functions ?? []) : (pin.functions ?? []);
  const any = pin.crossbar ? [pin.io === 'in' ? 'any digital line in' : 'any digital line'] : [];
  const functions = direct.map((name) => {
    const [controller = '', line = ''] = name.split('.');
    return `${board.controllers.get(controller)?.title ?? controller} ${line.toUpperCase()}`;
  });
  const analog = pin.adc ? [`analog ${pin.adc.channel}`] : [];
  // A timer available on any pin says so; its channel is the pin.
  const pwm = pin.pwm
    ? [pin.pwm.timer.startsWith('PWM') ? pin.pwm.timer.replace(', any pin', '') : `PWM ${pin.pwm.timer}, ${pin.pwm.channel}`]
    : [];
  const own = pin.interrupts?.filter((i) => !i.shared).map((i) => `interrupt ${i.line}`) ?? [];
  const shared = pin.interrupts?.filter((i) => i.shared).map((i) => `shared interrupt ${i.line}`) ?? [];
  return [...functions, ...any, ...analog, ...pwm, ...own, ...shared];
}
