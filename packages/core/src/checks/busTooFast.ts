import { clockLimits, everyMember } from '../electrics/busInputs';
import type { Bus } from '../nets/buses';
import type { Check, CheckContext, FindingDraft } from './check';
import { toBusOfItsOwn } from './ownBus';
import { who } from './stretches';

function finding(context: CheckContext, bus: Bus & { readonly controller: string }, hz: number): FindingDraft {
  const { plan, sheets, board } = context;
  const limits = clockLimits(plan, sheets, board, bus).filter((limit) => limit.hz < hz);
  const [slowest] = limits;
  const { hz: _hz, ...others } = plan.busSettings[bus.controller] ?? {};
  const alone = limits.length === 1 && slowest!.id !== 'board' && bus.members.length > 1 && bus.members.some((m) => m.id === slowest!.id);
  return {
    level: 'risk',
    message: limits.length > 1 ? 'several' : 'one',
    place: { pins: Object.values(bus.pins), bus: bus.controller },
    data: {
      bus: { is: 'stretch', controller: bus.controller },
      hz: { is: 'quantity', value: hz, unit: 'Hz' },
      slowest: who(slowest!.id),
      most: { is: 'quantity', value: slowest!.hz, unit: 'Hz' },
      count: { is: 'count', value: limits.length },
    },
    source: context.board.sheet.controllers.source,
    remedies: () => [
      {
        label: 'slower',
        data: { most: { is: 'quantity', value: slowest!.hz, unit: 'Hz' } },
        grade: 'safe',
        edits: [{ kind: 'bus-settings', segment: bus.controller, settings: { ...others, hz: slowest!.hz } }],
      },
      ...(alone ? toBusOfItsOwn(context, slowest!.id, 'i2c') : []),
    ],
  };
}

const why =
  'The clock of a bus is at most what its slowest member, and the controller, follow: those that cannot, lose bits or stay silent.';

export const busTooFast: Check = {
  code: 'bus-too-fast',
  question: 'Does everybody on an I2C bus follow its clock?',
  messages: {
    one: { title: '{bus} at {hz} is too fast for {slowest}', text: 'It follows {most} at most.', why },
    several: { title: '{bus} at {hz} is too fast for {count} parts', text: 'The slowest is {slowest}: {most} at most.', why },
  },
  remedies: { slower: 'Clock the bus at {most}', 'own-bus': 'Put {placement} on {controller} ({pins})' },
  examine: (context) =>
    context.buses.flatMap((bus) => {
      const { controller } = bus;
      const hz = bus.kind === 'i2c' && controller !== undefined ? context.plan.busSettings[controller]?.hz : undefined;
      if (hz === undefined || controller === undefined || everyMember(context.plan, context.sheets, bus).length === 0) return [];
      const least = clockLimits(context.plan, context.sheets, context.board, bus)[0];
      return least && least.hz < hz ? [finding(context, { ...bus, controller }, hz)] : [];
    }),
};
