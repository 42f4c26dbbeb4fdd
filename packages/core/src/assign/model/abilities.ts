import { getOrThrow } from '../../collections/orThrow';
import { memoizeByObject } from '../../memo/memoizeByObject';
import type { BoardPin } from '../../sheets/boardSheet';
import type { PartSheet, PartTerminal } from '../../sheets/partSheet';
import { type ControllerKind, PIN_ROLES } from '../../sheets/roles';
import type { IndexedBoard } from '../../sheets/sheetIndex';
import { INSTANCE_LIMITS } from './weights';

/** What a pin can do beyond being switched and read. */
export type Ability = 'adc' | 'dac' | 'pwm' | 'interrupt' | 'touch' | ControllerKind;

/** How likely what is added later will ask for an ability: analog inputs most, touch least. */
const WANTED: { readonly [A in Ability]: number } = { adc: 8, dac: 6, i2c: 4, spi: 4, pwm: 3, interrupt: 2, uart: 2, touch: 1 };

/** Scarcity is counted in twelfths: whole numbers that other solvers can be given. */
const PARTS = 12;

/** The abilities of a pin that some other pin may lack. A crossbar's lines are none: every pin of it has them. */
export function abilitiesOf(board: IndexedBoard, pin: BoardPin): ReadonlySet<Ability> {
  const abilities = new Set<Ability>();
  if (pin.adc) abilities.add('adc');
  if (pin.dac) abilities.add('dac');
  if (pin.pwm) abilities.add('pwm');
  if (pin.touch) abilities.add('touch');
  if (pin.interrupts?.some((line) => !line.shared)) abilities.add('interrupt');
  for (const name of pin.functions ?? []) {
    const controller = board.controllers.get(name.slice(0, name.indexOf('.')));
    if (controller && !controller.software && controller.legal.rule !== 'any-pin') abilities.add(controller.kind);
  }
  return abilities;
}

/** The abilities that a terminal makes use of. */
export function abilitiesFor(terminal: PartTerminal): ReadonlySet<Ability> {
  const demand = PIN_ROLES[terminal.role];
  const wanted = [...(terminal.requires ?? []), ...(terminal.prefers ?? [])];
  return new Set<Ability>([
    ...wanted,
    ...(demand?.adc ? (['adc'] as const) : []),
    ...(demand?.pwm ? (['pwm'] as const) : []),
    ...(demand?.line ? [demand.line.kind] : []),
  ]);
}

export type Waste = (pin: string, used: ReadonlySet<Ability>) => number;

/** The waste of using a pin: for each of its abilities that is not used, WANTED · 12 / (usable pins of the board that have it), rounded
 *  up. It depends on the board alone, so that it is the same for every choice of one instance. */
export const wasteOn = memoizeByObject((board: IndexedBoard): Waste => {
  const usable = board.ioPins.filter((pin) => pin.grade !== 'reserved');
  const abilities = new Map(usable.map((pin) => [pin.id, abilitiesOf(board, pin)]));
  const count = new Map<Ability, number>();
  for (const own of abilities.values()) for (const ability of own) count.set(ability, (count.get(ability) ?? 0) + 1);
  const scarcity = (ability: Ability) => Math.ceil((WANTED[ability] * PARTS) / getOrThrow(count, ability));
  const known = new Map<string, number>();
  return (pin, used) => {
    const key = `${pin} ${[...used].join()}`;
    const before = known.get(key);
    if (before !== undefined) return before;
    const spare = [...(abilities.get(pin) ?? [])].filter((ability) => !used.has(ability));
    const value = Math.min(
      INSTANCE_LIMITS.waste,
      spare.reduce((sum, ability) => sum + scarcity(ability), 0),
    );
    known.set(key, value);
    return value;
  };
});

/** The idle level of a terminal's line: its own, that of a pull-up on the module, that of the bus, or that of a chip select. */
export function restLevel(part: PartSheet, terminal: PartTerminal): 'high' | 'low' | undefined {
  if (terminal.idle) return terminal.idle;
  if (part.module.pullUps?.some((pull) => pull.terminals.includes(terminal.id))) return 'high';
  // A chip select is an input that leaves the line where the board's own pull-up has it, and is not selected before the program runs.
  return PIN_ROLES[terminal.role]?.line?.kind === 'i2c' || terminal.role === 'spi.cs' ? 'high' : undefined;
}

/** Whether a terminal keeps a boot pin at its required level at reset. An unknown idle level counts as no: an LED to ground overrides a
 *  weak pull-up. */
export function bootsWith(pin: BoardPin, part: PartSheet, terminal: PartTerminal): boolean {
  const rest = restLevel(part, terminal);
  return (pin.duties ?? []).every(({ duty, level }) => {
    return duty !== 'boot' || level === undefined || rest === level;
  });
}
