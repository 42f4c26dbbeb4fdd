import { getOrThrow } from '../../collections/orThrow';
import { bootsWith, restLevel } from '../../assign/model/abilities';
import { freePins } from '../../assign/fit/freePins';
import { movesToLegal } from '../../assign/moveBus';
import { type OntoSoftware, softwareAsWired } from '../../assign/softwareBus';
import { softwareSpeed } from '../../text/softwareSpeed';
import type { Bus } from '../../nets/buses';
import { legalControllers } from '../../nets/controllers';
import { PIN_ROLES } from '../../sheets/roles';
import type { BoardPin } from '../../sheets/boardSheet';
import type { PlanTerminal } from '../../nets/terminals';
import { applyEdits } from '../../plan/applyEdits';
import type { Plan, WireEnd } from '../../plan/plan';
import type { CheckContext, Datum, Remedy } from '../engine/check';

/** Whether a bus line, on another pin, would still be one bus with the other lines of its part and with those who share them. Other
 *  signals may go anywhere. */
function keepsBus({ board, buses }: CheckContext, item: PlanTerminal, pin: string): boolean {
  const line = PIN_ROLES[item.terminal.role]?.line;
  if (!line) return true;
  const own = buses.find((bus) => bus.kind === line.kind && bus.members.some((m) => m.id === item.placement.id));
  if (!own) return true;
  const pins = { ...own.pins, [line.line]: pin };
  const meets = (bus: Bus) => Object.entries(bus.pins).some(([name, at]) => name !== line.line && own.pins[name] === at);
  return (
    legalControllers(board, line.kind, pins).length > 0 &&
    buses
      .filter((bus) => bus.kind === line.kind && bus.members.some((m) => m.id !== item.placement.id) && (bus === own || meets(bus)))
      .every((bus) => bus.pins[line.line] === undefined || bus.pins[line.line] === pin)
  );
}

/** "Move TERMINAL to PIN": the terminal goes to its best free pin. None where it is locked or no pin is free. */
export const moveToFree = (context: CheckContext, item: PlanTerminal): readonly Remedy[] => moveWhere(context, item, () => true);

/** As `moveToFree`, to the best accepted free pin: one at which the board is certain to start, otherwise one where this is unknown. */
export function moveWhere(context: CheckContext, item: PlanTerminal, accepts: (pin: BoardPin) => boolean): readonly Remedy[] {
  if (item.wire?.locked || item.placement.onBoard) return [];
  const pins = freePins(context.board, context.nets, item)
    .map((id) => getOrThrow(context.board.pins, id))
    .filter((pin) => accepts(pin) && keepsBus(context, item, pin.id));
  const starts = pins.find((pin) => bootsWith(pin, item.part, item.terminal));
  const pin = (starts ?? (restLevel(item.part, item.terminal) === undefined ? pins[0] : undefined))?.id;
  return pin ? [rewire(item, { to: 'pin', pin }, { label: 'move', data: { pin: { is: 'pin', pin } } })] : [];
}

/** An end on the board as findings and remedies name it. */
export function endDatum(end: Exclude<WireEnd, { readonly to: 'terminal' }>): Datum {
  if (end.to === 'pin') return { is: 'pin', pin: end.pin };
  return end.to === 'rail' ? { is: 'rail', rail: end.rail } : { is: 'words', text: 'GND' };
}

/** How a check says that a wire goes elsewhere: with one of its labels, what that names beside the terminal, and how safe it is. */
interface RewireAs {
  readonly label: string;
  readonly data?: Remedy['data'];
  readonly grade?: Remedy['grade'];
}

/** One wire to another end, under a label of the check. */
export function rewire(item: PlanTerminal, end: WireEnd, { label, data = {}, grade = 'offered' }: RewireAs): Remedy {
  return {
    label,
    data: { terminal: { is: 'terminal', key: item.key }, ...data },
    grade,
    edits: [{ kind: 'wire', placement: item.placement.id, terminal: item.terminal.id, end }],
  };
}

/** "Use CONTROLLER on PINS": a bus with all on it to legal pins.
 *  @param helps whether the plan after it is as it should be */
export function busToLegal(context: CheckContext, bus: Bus, helps: (after: Plan) => boolean = () => true): readonly Remedy[] {
  return movesToLegal(context, context.nets, bus)
    .filter(({ edits }) => {
      const after = applyEdits(context.plan, edits, context.sheets);
      return after.ok && helps(after.plan);
    })
    .slice(0, 2)
    .map(({ set, edits }) => ({
      label: 'move-bus',
      data: { controller: { is: 'controller', id: set.controller }, pins: { is: 'pins', pins: Object.values(set.pins) } },
      grade: 'offered',
      edits,
    }));
}

/** The label of `bySoftware`. */
export const SOFTWARE_BUS = 'Drive this bus by software on {pins} (up to {clock})';

/** A bus of the program as a remedy, with its pins and the clock that it reaches. */
export const softwareRemedy = ({ board }: CheckContext, kind: Bus['kind'], { pins, edits }: OntoSoftware): Remedy => ({
  label: 'software',
  data: { clock: { is: 'words', text: softwareSpeed(board, kind) }, pins: { is: 'pins', pins: Object.values(pins) } },
  grade: 'offered',
  edits,
});

/** "Drive the bus by software": where it is wired now. */
export function bySoftware(context: CheckContext, bus: Bus): readonly Remedy[] {
  const found = softwareAsWired(context.plan, context.sheets, bus);
  return found ? [softwareRemedy(context, bus.kind, found)] : [];
}

/** The bus that a terminal is a line of. */
export function busOfTerminal(context: CheckContext, item: PlanTerminal): Bus | undefined {
  const kind = PIN_ROLES[item.terminal.role]?.line?.kind;
  return kind && context.buses.find((b) => b.kind === kind && b.members.some((m) => m.id === item.placement.id));
}

/** As `busToLegal`, the bus that a terminal is a line of. Undefined for other signals. */
export function moveBus(context: CheckContext, item: PlanTerminal, helps?: (after: Plan) => boolean): readonly Remedy[] | undefined {
  const bus = busOfTerminal(context, item);
  return bus && busToLegal(context, bus, helps);
}

/** The other line of a two-wire bus. */
const OTHER_LINE: { readonly [line: string]: string } = { sda: 'scl', scl: 'sda' };

const pinOf = (item: PlanTerminal | undefined): string | undefined => (item?.wire?.end.to === 'pin' ? item.wire.end.pin : undefined);

/** "Swap SDA and SCL": for a part whose lines are on each other's pins, and for every part that is wired like it. None where a
 *  wire is locked, or the pins would not serve the other way round either. */
export function swapLines(context: CheckContext, item: PlanTerminal): readonly Remedy[] {
  const line = PIN_ROLES[item.terminal.role]?.line;
  const other = line?.kind === 'i2c' ? OTHER_LINE[line.line] : undefined;
  if (!line || !other) return [];
  const partner = ({ placement }: PlanTerminal) =>
    context.terminals.find((one) => one.placement.id === placement.id && one.terminal.role === `i2c.${other}`);
  const [here, there] = [pinOf(item), pinOf(partner(item))];
  if (here === undefined || there === undefined) return [];
  if (legalControllers(context.board, 'i2c', { [line.line]: there, [other]: here }).length === 0) return [];
  const alike = context.terminals.filter(
    (one) => one.terminal.role === item.terminal.role && pinOf(one) === here && pinOf(partner(one)) === there,
  );
  const wired = alike.flatMap((one) => [one, partner(one) ?? []].flat());
  if (wired.some((one) => one.wire?.locked || one.placement.onBoard)) return [];
  const edits = wired.map((one) => ({
    kind: 'wire' as const,
    placement: one.placement.id,
    terminal: one.terminal.id,
    end: { to: 'pin' as const, pin: pinOf(one) === here ? there : here },
  }));
  return [{ label: 'swap', data: { parts: { is: 'placements', ids: alike.map((one) => one.placement.id) } }, grade: 'offered', edits }];
}
