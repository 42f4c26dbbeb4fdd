import type { Alternative, Conflict } from '../assign/explain';
import type { Costs } from '../assign/model/instance';
import { costText } from './costText';
import { NO_COSTS, TIERS } from '../assign/model/weights';
import type { PinAssignment } from '../assign/assignPins';
import type { WayKind } from '../review/ways/way';
import type { WayOut } from '../review/ways/waysOut';
import type { Preference, PreferenceCost } from '../assign/preferenceCost';
import { fillTemplate } from './describe';
import { listText, placementText, terminalText } from './names';
import { boardOf, boardOrThrow } from '../plan/edit';
import type { Plan } from '../plan/plan';
import { counted, formatAddress } from '../quantity/format';
import type { Sheets } from '../sheets/sheetIndex';

/** The text of a pin assignment, for the Chart and the command line. */

/** What was proved of a settlement. */
export function proofText({ proved, costs, bound }: Pick<PinAssignment, 'proved' | 'costs' | 'bound'>): string {
  if (!proved) return `Best found in the time: ${costText(costs)}. Not proved optimal; lower bound: ${costText(bound)}.`;
  if (costs.unwired > 0) return `Proved: at least ${counted(costs.unwired, 'terminal')} cannot be connected.`;
  return `Proved optimal: ${counted(costs.moved, 'wire')} moved (the minimum), ${costs.caution === 0 ? 'no pins' : counted(costs.caution, 'pin')} with caveats, scarce pins kept free.`;
}

/** A conflict in one sentence. */
export function conflictText(plan: Plan, sheets: Sheets, conflict: Conflict): string {
  const board = boardOrThrow(plan, sheets);
  const unplaced = [
    ...conflict.terminals.map((key) => terminalText(plan, sheets, key)),
    ...conflict.members.map(
      (m) => `${placementText(plan, m.placement)}${m.addresses.length > 0 ? ` (${m.addresses.map(formatAddress).join(' or ')})` : ''}`,
    ),
  ];
  const buses = [...new Set(conflict.members.flatMap((m) => m.controllers))].map((id) => board.controllers.get(id)?.title ?? id);
  const pins = conflict.pins.map((pin) => board.pins.get(pin)?.label ?? pin);
  const places =
    conflict.terminals.length === 0 && buses.length > 0 ? `the buses ${listText(buses)}` : pins.length > 0 ? listText(pins) : 'no pin';
  return `${listText(unplaced)} compete for ${places}${conflict.minimal ? '; without any one of them the others can be connected' : ''}.`;
}

/** A price tier by tier, as far as the first tier that differs: what comes after it was never weighed against it. */
export function priceText(more: Costs): string {
  for (const tier of TIERS) {
    const only: Costs = { ...NO_COSTS, [tier]: more[tier] };
    if (more[tier] > 0) return costText(only);
  }
  return 'nothing';
}

/** What it would cost to have a signal at a pin; nothing that was not shown is called impossible. */
export function alternativeText({ more, proved }: Alternative): string {
  if (!more) return proved ? 'impossible with the other wires' : 'no solution found in the time';
  const price = priceText(more);
  return `${price === 'nothing' ? 'equivalent' : price}${proved ? '' : ', not proved'}`;
}

/** A preference in words.
 *  @example wishedWords(plan, sheets, { kind: 'wish', terminal: 'lamp:A', wish: { pin: 'GP4' } }) // 'Lamp anode at GP4' */
export function wishedText(plan: Plan, sheets: Sheets, of: Preference): string {
  if (of.kind === 'together')
    return `${placementText(plan, of.placement)}: ${of.how === 'adjacent' ? 'signals on adjacent pins' : 'signals on one port'}`;
  const board = boardOf(plan, sheets);
  const label = (pin: string) => board?.pins.get(pin)?.label ?? pin;
  const { pin, not, controller } = of.wish;
  const words = [
    ...(pin === undefined ? [] : [`at ${label(pin)}`]),
    ...(not ? [`not at ${listText(not.map(label))}`] : []),
    ...(controller === undefined ? [] : [`on ${board?.controllers.get(controller)?.title ?? controller}`]),
  ];
  return `${terminalText(plan, sheets, of.terminal)} ${words.join(', ')}`;
}

/** The cost of a preference, and whether it is met. */
export function wishText(plan: Plan, sheets: Sheets, { of, met, more, proved }: PreferenceCost): string {
  const wish = wishedText(plan, sheets, of);
  if (!met) return `${wish}: cannot be met with the locked wires and other preferences.`;
  const price = priceText(more);
  return `${wish}: ${price === 'nothing' ? 'no cost' : `cost: ${price}`}${proved ? '' : ', not proved'}.`;
}

const WAYS: { readonly [K in WayKind]: string } = {
  variant: 'Use {form} for {placement}',
  'reset-tie': 'Connect {terminals} to {pin} (reset with the board)',
  'join-lines': 'Share one pin: connect {terminals} to {head}',
  'software-bus': 'Drive {terminals} by software ({bus}, up to {clock})',
  'software-pwm': 'Make the PWM of {terminals} by software (about {clock})',
  adc: 'Add {helper} for {terminals}',
  expander: 'Add {helper} for {terminals}',
  'shift-out': 'Add {helper} for {terminals}',
  'shift-in': 'Add {helper} for {terminals}',
  decoder: 'Add {helper} for the chip selects {terminals}',
  ladder: 'Replace {placements} by one {helper}',
  multiplexer: 'Add {helper}, connect {placements} through it',
};

/** What a way out gives up besides pins and parts. */
const PRICE: { readonly [K in WayKind]?: string } = {
  'reset-tie': 'the program can no longer reset them separately',
  'join-lines': 'common reset; distinguished by chip select',
  'software-bus': 'slower, and the program does nothing else during a transfer',
  'software-pwm': 'a timer interrupt that runs all the time',
  adc: 'each reading is a bus transfer',
  expander: 'each change is a bus transfer',
  'shift-out': 'outputs are set together by a serial transfer',
  'shift-in': 'inputs are read together by a serial transfer',
  decoder: 'one chip select at a time, no hardware select',
  ladder: 'one key at a time',
  multiplexer: 'one channel at a time, selected by the program',
};

/** A way out in words.
 *  @param plan the plan that it leads out of */
export function wayText(plan: Plan, sheets: Sheets, way: WayOut): string {
  return fillTemplate(plan, sheets, WAYS[way.kind], way.data);
}

/** What a way out costs: "1 part more, 3 pins fewer, 2 wires moved; each change is a bus transfer". */
export function wayCosts(way: WayOut): string {
  const signed = (n: number, one: string) => (n === 0 ? '' : `${counted(Math.abs(n), one)} ${n > 0 ? 'more' : 'fewer'}`);
  const words = [
    way.open.length > 0 ? `${counted(way.open.length, 'terminal')} unconnected` : '',
    signed(way.parts, 'part'),
    signed(way.pins, 'pin'),
    way.moved > 0 ? `${counted(way.moved, 'wire')} moved` : '',
  ].filter(Boolean);
  return [words.join(', '), PRICE[way.kind]].filter(Boolean).join('; ');
}
