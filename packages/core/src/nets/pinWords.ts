import type { BoardPin } from '../sheets/boardSheet';
import type { IndexedBoard } from '../sheets/sheetIndex';

/** What a pin can do, as short words in a fixed order.
 *  @example pinAbilities(board, pin) // ['SPI0 MISO', 'I2C0 SDA', 'UART1 TX', 'PWM slice 2, 2A', 'interrupt'] */
export function pinAbilities(board: IndexedBoard, pin: BoardPin): readonly string[] {
  const functions = (pin.functions ?? []).map((name) => {
    const [controller, line] = name.split('.');
    return `${board.controllers.get(controller!)?.title ?? controller} ${line!.toUpperCase()}`;
  });
  const analog = pin.adc ? [`analog ${pin.adc.channel}`] : [];
  const pwm = pin.pwm ? [`PWM ${pin.pwm.timer}, ${pin.pwm.channel}`] : [];
  const own = pin.interrupts?.filter((i) => !i.shared).map((i) => `interrupt ${i.line}`) ?? [];
  const shared = pin.interrupts?.filter((i) => i.shared).map((i) => `shared interrupt ${i.line}`) ?? [];
  return [...functions, ...analog, ...pwm, ...own, ...shared];
}
