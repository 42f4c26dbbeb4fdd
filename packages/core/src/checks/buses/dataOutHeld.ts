import type { Bus } from '../../nets/buses';
import type { PlanTerminal } from '../../nets/terminals';
import type { Check, CheckContext, FindingDraft, Remedy } from '../engine/check';
import { toBusOfItsOwn } from '../fixes/ownBus';

/** The data outputs that are wired to a bus. */
const dataOuts = (context: CheckContext, bus: Bus): readonly PlanTerminal[] => {
  const members = new Set(bus.members.map((m) => m.id));
  return context.terminals.filter((t) => members.has(t.placement.id) && t.terminal.role === 'spi.miso' && t.wire?.end.to === 'pin');
};

/** Disconnects a data output that is not needed. */
function offBus(item: PlanTerminal): readonly Remedy[] {
  if (item.terminal.need === 'needed' || item.wire?.locked || item.placement.onBoard) return [];
  return [
    {
      label: 'off',
      data: { terminal: { is: 'terminal', key: item.key } },
      grade: 'offered',
      edits: [{ kind: 'unwire', placement: item.placement.id, terminal: item.terminal.id }],
    },
  ];
}

function finding(context: CheckContext, bus: Bus, item: PlanTerminal, others: readonly PlanTerminal[]): FindingDraft {
  return {
    level: 'clash',
    message: 'held',
    place: { placements: [item.placement.id], terminals: [item.key, ...others.map((o) => o.key)] },
    data: {
      placement: { is: 'placement', id: item.placement.id },
      others: { is: 'placements', ids: others.map((o) => o.placement.id) },
    },
    source: item.part.bus.source,
    remedies: () => [...offBus(item), ...(bus.members.length > 1 ? toBusOfItsOwn(context, item.placement.id, 'spi') : [])],
  };
}

export const dataOutHeld: Check = {
  code: 'data-out-held',
  question: 'Does every device release MISO while it is not selected?',
  messages: {
    held: {
      title: '{placement} keeps driving MISO when deselected',
      text: '{others} cannot be read on the same bus.',
      why: 'On a shared SPI bus only the selected device may drive MISO. According to its sheet, the output of this device is not high-impedance while CS is high.',
    },
  },
  remedies: { off: 'Disconnect {terminal} (the device is not read)', 'own-bus': 'Move {placement} to {controller} ({pins})' },
  examine: (context) =>
    context.buses
      .filter((bus) => bus.kind === 'spi')
      .flatMap((bus) => {
        const outs = dataOuts(context, bus);
        const holding = outs.filter((item) => item.part.bus.releasesDataOut === false);
        return holding.flatMap((item) => {
          const others = outs.filter((o) => o.placement.id !== item.placement.id);
          return others.length > 0 ? [finding(context, bus, item, others)] : [];
        });
      }),
};
