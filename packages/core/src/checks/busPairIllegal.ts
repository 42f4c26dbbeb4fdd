import type { Bus } from '../nets/buses';
import { controllersAt } from '../nets/controllers';
import { lineTerminals } from '../allocate/moveBus';
import type { Check, CheckContext, FindingDraft } from './check';
import { busToLegal } from './remedyParts';

/** Every line has some controller, yet no controller has them all. (A pin with none is `pin-cannot`.) */
function isSplit(context: CheckContext, bus: Bus): boolean {
  const lines = Object.entries(bus.pins);
  if (bus.controller || lines.length < 2) return false;
  return lines.every(([line, pin]) => controllersAt(context.board, pin, bus.kind, line).length > 0);
}

function finding(context: CheckContext, bus: Bus): FindingDraft {
  const pins = Object.values(bus.pins);
  const belongs = Object.entries(bus.pins).map(
    ([line, pin]) => `${line.toUpperCase()} on ${pin}: ${controllersAt(context.board, pin, bus.kind, line).join(' or ').toUpperCase()}`,
  );
  return {
    level: 'clash',
    message: 'split',
    place: { pins, terminals: lineTerminals(context.plan, context.sheets, bus.members, bus.kind).map((t) => t.key) },
    data: {
      pins: { is: 'pins', pins },
      members: { is: 'placements', ids: bus.members.map((m) => m.id) },
      belongs: { is: 'words', text: belongs.join('; ') },
    },
    source: context.board.sheet.controllers.source,
    remedies: () => busToLegal(context, bus),
  };
}

export const busPairIllegal: Check = {
  code: 'bus-pair-illegal',
  question: 'Do all lines of a bus belong to one controller?',
  messages: {
    split: {
      title: '{pins} belong to different controllers',
      text: '{members}: no controller has all of these lines. {belongs}.',
      why: 'SDA and SCL (or SCK, MOSI and MISO) must come from one controller, on pins that its alternate functions allow.',
    },
  },
  remedies: { 'move-bus': 'Move the bus to {controller} ({pins})' },
  examine: (context) => context.buses.filter((bus) => isSplit(context, bus)).map((bus) => finding(context, bus)),
};
