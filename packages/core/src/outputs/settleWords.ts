import type { Alternative, Conflict } from '../allocate/explain';
import type { Costs } from '../allocate/instance';
import { sayCosts } from '../allocate/sayCosts';
import type { Settlement } from '../allocate/settle';
import type { WayKind } from '../review/ways/way';
import type { WayOut } from '../review/ways/waysOut';
import type { Wished, WishPrice } from '../allocate/wishPrice';
import { fillTemplate, sayList, sayPlacement, sayTerminal } from '../checks/say';
import { boardOf } from '../plan/edit';
import type { Plan } from '../plan/plan';
import { counted, formatAddress } from '../quantity/format';
import type { Sheets } from '../sheets/sheetIndex';

/** What settling found, in words: for the Chart and for the command line. */

/** What was proved of a settlement. */
export function proofWords({ proved, costs, bound }: Pick<Settlement, 'proved' | 'costs' | 'bound'>): string {
  if (!proved) return `Best found in the time (${sayCosts(costs)}); nothing can cost less than ${sayCosts(bound)}.`;
  if (costs.unwired > 0) return `Proved: no plan leaves fewer terminals open than ${costs.unwired}.`;
  return `Proved: no plan moves fewer wires (${costs.moved}), then needs fewer pins with caution (${costs.caution}), then spares scarce pins better.`;
}

/** Who stands in whose way, in one sentence. */
export function conflictWords(plan: Plan, sheets: Sheets, conflict: Conflict): string {
  const board = boardOf(plan, sheets)!;
  const wanting = [
    ...conflict.terminals.map((key) => sayTerminal(plan, sheets, key)),
    ...conflict.members.map(
      (m) => `${sayPlacement(plan, m.placement)}${m.addresses.length > 0 ? ` (${m.addresses.map(formatAddress).join(' or ')})` : ''}`,
    ),
  ];
  const buses = [...new Set(conflict.members.flatMap((m) => m.controllers))].map((id) => board.controllers.get(id)?.title ?? id);
  const pins = conflict.pins.map((pin) => board.pins.get(pin)?.label ?? pin);
  const places =
    conflict.terminals.length === 0 && buses.length > 0 ? `the buses ${sayList(buses)}` : pins.length > 0 ? sayList(pins) : 'no pin';
  return `${sayList(wanting)} compete for ${places}${conflict.minimal ? '; without any one of them the others fit' : ''}.`;
}

/** A price tier by tier, as far as the first tier that differs: what comes after it was never weighed against it. */
export function priceWords(more: Costs): string {
  for (const tier of ['unwired', 'moved', 'caution', 'waste'] as const) {
    const only: Costs = { unwired: 0, moved: 0, caution: 0, waste: 0, [tier]: more[tier] };
    if (more[tier] > 0) return sayCosts(only);
  }
  return 'nothing';
}

/** What it would cost to have a signal at a pin; nothing that was not shown is called impossible. */
export function alternativeWords({ more, proved }: Alternative): string {
  if (!more) return proved ? 'no place for it there beside the rest' : 'no place found for it there in the time';
  const price = priceWords(more);
  return `${price === 'nothing' ? 'nothing: as good as any' : price}${proved ? '' : ', as far as was searched'}`;
}

/** A wish in words.
 *  @example wishedWords(plan, sheets, { kind: 'wish', terminal: 'lamp:A', wish: { pin: 'GP4' } }) // 'Lamp anode at GP4' */
export function wishedWords(plan: Plan, sheets: Sheets, of: Wished): string {
  if (of.kind === 'together')
    return `${sayPlacement(plan, of.placement)}: ${of.how === 'adjacent' ? 'its signals side by side' : 'its signals on one port'}`;
  const board = boardOf(plan, sheets);
  const label = (pin: string) => board?.pins.get(pin)?.label ?? pin;
  const { pin, not, controller } = of.wish;
  const words = [
    ...(pin === undefined ? [] : [`at ${label(pin)}`]),
    ...(not ? [`not at ${sayList(not.map(label))}`] : []),
    ...(controller === undefined ? [] : [`on ${board?.controllers.get(controller)?.title ?? controller}`]),
  ];
  return `${sayTerminal(plan, sheets, of.terminal)} ${words.join(', ')}`;
}

/** What a wish costs, and whether it is met. */
export function wishWords(plan: Plan, sheets: Sheets, { of, met, more, proved }: WishPrice): string {
  const wish = wishedWords(plan, sheets, of);
  if (!met) return `${wish}: cannot be met beside what is locked and wished for.`;
  const price = priceWords(more);
  return `${wish}: ${price === 'nothing' ? 'costs nothing' : `costs ${price}`}${proved ? '' : ', as far as was searched'}.`;
}

const WAYS: { readonly [K in WayKind]: string } = {
  variant: 'Take {placement} as {form}',
  'reset-tie': 'Start with the board: {terminals} to {pin}',
  'join-lines': 'One pin for several: join {terminals} to {head}',
  expander: 'Add {helper} for {terminals}',
  'shift-out': 'Add {helper} for {terminals}',
  'shift-in': 'Add {helper} for {terminals}',
  decoder: 'Add {helper} for the selects {terminals}',
  ladder: 'One {helper} in place of {placements}',
  multiplexer: 'Add {helper}, with {placements} behind it',
};

/** What a way out gives up besides pins and parts. */
const PRICE: { readonly [K in WayKind]?: string } = {
  'reset-tie': 'the program can no longer restart them alone',
  'join-lines': 'reset together, told apart by their selects',
  expander: 'each change is a transfer on the bus',
  'shift-out': 'all are set at once, bit after bit',
  'shift-in': 'all are read at once, bit after bit',
  decoder: 'one select at a time, none with its own hardware line',
  ladder: 'one key at a time is told',
  multiplexer: 'one channel at a time, switched by the program',
};

/** A way out in words.
 *  @param plan the plan that it leads out of */
export function wayWords(plan: Plan, sheets: Sheets, way: WayOut): string {
  return fillTemplate(plan, sheets, WAYS[way.kind], way.data);
}

/** What a way out costs: "1 part more, 3 pins fewer, 2 wires moved; each change is a transfer on the bus". */
export function wayCosts(way: WayOut): string {
  const signed = (n: number, one: string) => (n === 0 ? '' : `${counted(Math.abs(n), one)} ${n > 0 ? 'more' : 'fewer'}`);
  const words = [
    way.open.length > 0 ? `${counted(way.open.length, 'terminal')} still open` : '',
    signed(way.parts, 'part'),
    signed(way.pins, 'pin'),
    way.moved > 0 ? `${counted(way.moved, 'wire')} moved` : '',
  ].filter(Boolean);
  return [words.join(', '), PRICE[way.kind]].filter(Boolean).join('; ');
}
