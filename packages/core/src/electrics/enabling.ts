import { type Bus, findBuses, pinOfLine } from '../nets/buses';
import { findNets } from '../nets/nets';
import type { Plan } from '../plan/plan';
import type { Enabling } from '../sheets/boardSheet';
import type { IndexedBoard, Sheets } from '../sheets/sheetIndex';
import { spiSheet } from './spiBus';

/** How to enable one bus in the operating system, with the pins and chip selects of the plan. */
export interface BusEnabling {
  readonly bus: Bus;
  readonly controller: string;
  readonly words: string;
}

/** The selects of an SPI bus, in the order of its parts. */
function selectsOf(plan: Plan, sheets: Sheets, board: IndexedBoard, bus: Bus): readonly string[] {
  if (bus.kind !== 'spi') return [];
  const nets = findNets(plan, sheets);
  const pins = spiSheet(plan, sheets, board, bus).rows.flatMap(({ select }) => (select && pinOfLine(plan, select.key, nets, sheets)) ?? []);
  return [...new Set(pins)];
}

function fits(entry: Enabling, bus: Bus, selects: readonly string[], own: readonly string[]): boolean {
  if (entry.controller !== bus.controller) return false;
  if (Object.entries(entry.pins ?? {}).some(([line, pin]) => bus.pins[line] !== pin)) return false;
  if (entry.most !== undefined && selects.length > entry.most) return false;
  if (entry.selects === 'any-own') return selects.every((pin) => own.includes(pin));
  return entry.selects !== 'first-own' || selects.every((pin, at) => own[at] === pin);
}

/** How to enable each bus of a plan; of several entries of a controller the first that matches. Empty for boards without an operating
 *  system. */
export function enablingOf(plan: Plan, sheets: Sheets, board: IndexedBoard): readonly BusEnabling[] {
  const list = board.sheet.enabling?.list ?? [];
  if (list.length === 0) return [];
  return findBuses(plan, sheets).flatMap((bus): BusEnabling[] => {
    const controller = board.sheet.controllers.list.find((one) => one.id === bus.controller);
    if (!controller) return [];
    const selects = selectsOf(plan, sheets, board, bus);
    const own = controller.legal.rule === 'sets' ? controller.legal.sets.flatMap((set) => set['cs'] ?? []) : [];
    const entry = list.find((one) => fits(one, bus, selects, own));
    if (!entry) return [];
    const number = (pin: string) => /\d+$/.exec(board.pins.get(pin)?.port ?? pin)?.[0] ?? pin;
    const words = entry.words
      .replace('{count}', String(Math.max(1, selects.length)))
      .replace('{selects}', selects.map((pin, at) => `,cs${at}_pin=${number(pin)}`).join(''));
    return [{ bus, controller: controller.id, words }];
  });
}
