import { clockLimits, everyMember } from '../../electrics/reports/busInputs';
import type { Bus } from '../../nets/buses';
import type { Check, CheckContext, FindingDraft } from '../engine/check';
import { toBusOfItsOwn } from '../fixes/ownBus';
import { who } from '../pullups/busSegments';

function findings(context: CheckContext, bus: Bus & { readonly controller: string }, hz: number): readonly FindingDraft[] {
  const { plan, sheets, board } = context;
  const limits = clockLimits(plan, sheets, board, bus).filter((limit) => limit.hz < hz);
  const [slowest] = limits;
  if (!slowest) return [];
  const { hz: _hz, ...others } = plan.busSettings[bus.controller] ?? {};
  const alone = limits.length === 1 && slowest.id !== 'board' && bus.members.length > 1 && bus.members.some((m) => m.id === slowest.id);
  return [
    {
      level: 'risk',
      message: limits.length > 1 ? 'several' : 'one',
      place: { pins: Object.values(bus.pins), bus: bus.controller },
      data: {
        bus: { is: 'segment', controller: bus.controller },
        hz: { is: 'quantity', value: hz, unit: 'Hz' },
        slowest: who(slowest.id),
        most: { is: 'quantity', value: slowest.hz, unit: 'Hz' },
        count: { is: 'count', value: limits.length },
      },
      source: context.board.sheet.controllers.source,
      remedies: () => [
        {
          label: 'slower',
          data: { most: { is: 'quantity', value: slowest.hz, unit: 'Hz' } },
          grade: 'safe',
          edits: [{ kind: 'bus-settings', segment: bus.controller, settings: { ...others, hz: slowest.hz } }],
        },
        ...(alone ? toBusOfItsOwn(context, slowest.id, 'i2c') : []),
      ],
    },
  ];
}

const why =
  'fSCL ≤ the lowest fSCL(max) of all devices and of the controller. A device that is clocked faster loses bits or does not acknowledge.';

export const busTooFast: Check = {
  code: 'bus-too-fast',
  question: 'Does every device on an I2C bus support its clock?',
  messages: {
    one: { title: '{bus}: {hz} exceeds the maximum of {slowest}', text: 'Maximum {most}.', why },
    several: { title: '{bus}: {hz} exceeds the maximum of {count} devices', text: 'The slowest is {slowest}: maximum {most}.', why },
  },
  remedies: { slower: 'Set the bus clock to {most}', 'own-bus': 'Move {placement} to {controller} ({pins})' },
  examine: (context) =>
    context.buses.flatMap((bus) => {
      const { controller } = bus;
      const hz = bus.kind === 'i2c' && controller !== undefined ? context.plan.busSettings[controller]?.hz : undefined;
      if (hz === undefined || controller === undefined || everyMember(context.plan, context.sheets, bus).length === 0) return [];
      return findings(context, { ...bus, controller }, hz);
    }),
};
