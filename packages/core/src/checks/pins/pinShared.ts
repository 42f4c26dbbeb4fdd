import { firstOrThrow } from '../../collections/orThrow';
import { findNets, type Net } from '../../nets/nets';
import { applyEdits } from '../../plan/applyEdits';
import type { Plan } from '../../plan/plan';
import type { PlanTerminal } from '../../nets/terminals';
import type { Check, CheckContext, FindingDraft } from '../engine/check';
import { isTakenForI2c } from '../buses/looksLikeI2c';
import { moveBus, moveToFree, swapLines } from '../fixes/remedyParts';
import { isSharedSelect } from '../buses/selectShared';

/** Signals that a remedy may move: private ones, latest part first (what was wired earlier tends to be built). */
function movable(net: Net): readonly PlanTerminal[] {
  return net.signals
    .filter((signal) => signal.terminals.length === 1)
    .flatMap((signal) => signal.terminals)
    .toReversed();
}

function clash(context: CheckContext, net: Net, pin: string): FindingDraft {
  const keys = net.terminals.map((t) => t.key);
  return {
    level: 'clash',
    message: 'shared',
    place: { pins: [pin], terminals: keys },
    data: {
      pin: { is: 'pin', pin },
      count: { is: 'count', value: net.signals.length },
      terminals: { is: 'terminals', keys },
    },
    remedies: () => {
      const alone = movable(net)
        .flatMap((item) => moveToFree(context, item))
        .slice(0, 3);
      const isParted = (after: Plan) => (findNets(after, context.sheets).byPin.get(pin)?.signals.length ?? 0) < 2;
      const swapped = net.terminals
        .toReversed()
        .flatMap((item) => swapLines(context, item))
        .filter(({ edits }) => {
          const after = applyEdits(context.plan, edits, context.sheets);
          return after.ok && isParted(after.plan);
        })
        .slice(0, 1);
      if (swapped.length > 0) return swapped;
      // Only lines of buses meet here: one of the buses goes elsewhere as a whole.
      return alone.length > 0
        ? alone
        : net.terminals
            .toReversed()
            .flatMap((item) => moveBus(context, item, isParted) ?? [])
            .slice(0, 2);
    },
  };
}

export const pinShared: Check = {
  code: 'pin-shared',
  harm: true,
  question: 'Does every pin carry only one signal?',
  messages: {
    shared: {
      title: 'Pin conflict: {pin} is used by {count} signals',
      text: '{terminals} are different signals on one pin.',
      why: 'Lines of one bus may share a pin. Other signals may not: one part would drive the other.',
    },
  },
  remedies: { swap: 'Swap SDA and SCL of {parts}', move: 'Move {terminal} to {pin}', 'move-bus': 'Move the bus to {controller} ({pins})' },
  examine: (context) =>
    context.nets.list
      // Selects of several parts, and parts taken for I2C, have checks of their own that say more.
      .filter(
        (net) =>
          net.pins.length > 0 &&
          net.signals.length > 1 &&
          !context.board.pins.get(firstOrThrow(net.pins))?.control &&
          !isSharedSelect(net) &&
          !isTakenForI2c(net),
      )
      .map((net) => clash(context, net, firstOrThrow(net.pins))),
};
