import { busLineOf, CONTROLLER_KINDS, PIN_ROLES } from '../../sheets/roles';
import { nextSoftwareBus } from '../../sheets/softwareBuses';
import { canBeSoftwarePwm } from '../../sheets/softwarePwm';
import { softwareSpeed } from '../../text/softwareSpeed';
import { formatSi } from '../../quantity/format';
import type { PartSheet } from '../../sheets/partSheet';
import { portsOf } from '../../sheets/ports';
import type { PlanTerminal } from '../../nets/terminals';
import { type Edit, partOf } from '../../plan/edit';
import { newPlacement } from '../../plan/newPlacement';
import { swapPart } from '../../plan/swapPart';
import { helpersFor, isMovable, onHelper, placelessFirst, type Draft, type Finder, type Stuck } from './way';

/** Signals that tolerate the delay of a bus transfer: switches, keys, LEDs, relays. Not signals with an interrupt, PWM or an analog
 *  value, and not protocol lines. */
export function isSlow({ terminal, part }: PlanTerminal, does: 'input' | 'output'): boolean {
  const demand = PIN_ROLES[terminal.role];
  if (part.bus.kind !== 'none' || !demand || demand.line || demand.adc || demand.pwm || demand.shared) return false;
  if (terminal.requires?.length || terminal.chain || terminal.serves || part.family === 'helper') return false;
  return does === 'input' ? demand.input === true && demand.output !== true : demand.output === true && demand.input !== true;
}

const unplaced = (stuck: Stuck, accepts: (item: PlanTerminal) => boolean): readonly PlanTerminal[] =>
  placelessFirst(
    stuck,
    stuck.terminals.filter(
      (item) => accepts(item) && isMovable(item) && (item.wire ? item.wire.end.to === 'pin' : item.terminal.need === 'needed'),
    ),
  );

/** Another form of a part that has something to do with the trouble. */
export const variant: Finder = (stuck) => {
  const { plan, sheets, settled, conflict } = stuck;
  const concerned = new Set(
    [...settled.open, ...(conflict?.terminals ?? [])]
      .map((key) => key.slice(0, key.indexOf(':')))
      .concat(conflict?.members.map((m) => m.placement) ?? []),
  );
  // A part without a conflict of its own may still use many pins.
  const all = plan.placements.filter((p) => !p.onBoard).toSorted((a, b) => Number(concerned.has(b.id)) - Number(concerned.has(a.id)));
  return all.flatMap((placement) => {
    const from = partOf(plan, placement.id, sheets)?.sheet;
    if (!from?.variantOf) return [];
    const forms = [...sheets.parts.values()].map((p) => p.sheet).filter((p) => p.variantOf === from.variantOf && p.id !== from.id);
    return forms.map((to): Draft => ({
      kind: 'variant',
      parts: 0,
      data: { placement: { is: 'placement', id: placement.id }, form: { is: 'words', text: to.title } },
      edits: swapPart(plan, placement, from, to),
    }));
  });
};

/** A reset line on the reset of the board: the part then starts when the board does. */
export const resetTie: Finder = (stuck) => {
  const reset = stuck.board.sheet.pins.list.find((pin) => pin.control === 'reset' && pin.header && !pin.sameAs);
  if (!reset) return [];
  const lines = unplaced(stuck, (t) => t.terminal.line === 'reset');
  const draftOf = (items: readonly PlanTerminal[]): Draft => ({
    kind: 'reset-tie',
    parts: 0,
    data: { terminals: { is: 'terminals', keys: items.map((t) => t.key) }, pin: { is: 'pin', pin: reset.id } },
    edits: items.map((t): Edit => ({
      kind: 'wire',
      placement: t.placement.id,
      terminal: t.terminal.id,
      end: { to: 'pin', pin: reset.id },
    })),
  });
  return [...lines.map((item) => draftOf([item])), ...(lines.length > 1 ? [draftOf(lines)] : [])];
};

/** One pin for lines of one kind that parts may have in common: data/command, reset, the clock of parts with one chip. */
export const joinLines: Finder = ({ terminals }) => {
  const joinable = terminals.filter((t) => t.terminal.line && t.wire?.end.to !== 'terminal' && t.terminal.need === 'needed');
  const kindOf = (t: PlanTerminal) => (t.terminal.line === 'clock' ? `clock ${t.part.chip}` : t.terminal.line);
  return [...new Set(joinable.map(kindOf))].flatMap((kind) => {
    const lines = joinable.filter((t) => kindOf(t) === kind);
    const [head, ...rest] = [...lines.filter((t) => !isMovable(t)), ...lines.filter((t) => isMovable(t))];
    const movable = rest.filter((t) => isMovable(t));
    if (!head || movable.length === 0) return [];
    return [
      {
        kind: 'join-lines' as const,
        parts: 0,
        data: {
          terminals: { is: 'terminals' as const, keys: movable.map((t) => t.key) },
          head: { is: 'terminal' as const, key: head.key },
        },
        edits: movable.map((t): Edit => ({
          kind: 'wire',
          placement: t.placement.id,
          terminal: t.terminal.id,
          end: { to: 'terminal', placement: head.placement.id, terminal: head.terminal.id },
        })),
      },
    ];
  });
};

/** Bus parts that no controller is left for on a bus that the program makes. */
export const softwareBus: Finder = ({ plan, board, terminals, settled }) => {
  const open = terminals.filter((t) => settled.open.includes(t.key));
  return CONTROLLER_KINDS.flatMap((kind): Draft[] => {
    const lines = open.filter((t) => PIN_ROLES[t.terminal.role]?.line?.kind === kind);
    const bus = lines.length > 0 ? nextSoftwareBus(board, plan.softwareBuses, kind) : undefined;
    if (!bus) return [];
    return [
      {
        kind: 'software-bus',
        parts: 0,
        data: {
          terminals: { is: 'terminals', keys: lines.map((t) => t.key) },
          bus: { is: 'words', text: `software ${kind.toUpperCase()}` },
          clock: { is: 'words', text: softwareSpeed(board, kind) },
        },
        edits: [{ kind: 'software-bus', bus, on: true }],
      },
    ];
  });
};

/** PWM by the program: of the terminals that find no pin, else of those that hold the pins that others need. */
export const softwarePwm: Finder = (stuck) => {
  const hz = stuck.board.sheet.software?.pwmHz;
  if (hz === undefined) return [];
  const able = unplaced(stuck, ({ terminal }) => canBeSoftwarePwm(terminal));
  const isOpen = (item: PlanTerminal) => stuck.settled.open.includes(item.key);
  const draftOf = (items: readonly PlanTerminal[]): Draft => ({
    kind: 'software-pwm',
    parts: 0,
    data: {
      terminals: { is: 'terminals', keys: items.map((t) => t.key) },
      clock: { is: 'words', text: formatSi(hz, 'Hz') },
    },
    edits: items.map(({ placement, terminal }): Edit => ({
      kind: 'software-pwm',
      placement: placement.id,
      terminal: terminal.id,
      on: true,
    })),
  });
  const open = able.filter(isOpen);
  return [open, ...able.map((item) => [...open, ...(isOpen(item) ? [] : [item])])].filter((items) => items.length > 0).map(draftOf);
};

/** Analog outputs on an analog-to-digital converter that is added. */
export const adc: Finder = (stuck) => {
  const items = unplaced(stuck, ({ terminal }) => terminal.role === 'adc.in');
  return helpersFor(stuck.sheets, 'analog').flatMap((part) => onHelper(stuck, 'adc', part, portsOf(part, 'analog'), items));
};

const isExpander = (part: PartSheet): boolean => part.bus.kind === 'i2c' || part.bus.kind === 'spi';

/** Slow inputs and outputs on a port expander, whichever of the two the expander can serve. */
export const expander: Finder = (stuck) =>
  [...new Set([...helpersFor(stuck.sheets, 'output'), ...helpersFor(stuck.sheets, 'input')])].filter(isExpander).flatMap((part) => {
    const ins = portsOf(part, 'input');
    const outs = portsOf(part, 'output');
    const items = unplaced(stuck, (t) => (outs.length > 0 && isSlow(t, 'output')) || (ins.length > 0 && isSlow(t, 'input')));
    // Ports that can do only one thing go to those that need just that.
    const free = new Set([...ins, ...outs]);
    const taken: { readonly item: PlanTerminal; readonly port: (typeof ins)[number] }[] = [];
    for (const item of items) {
      const able = [...free].filter((port) => (port.serves ?? []).includes(isSlow(item, 'output') ? 'output' : 'input'));
      const port = able.toSorted((a, b) => (a.serves?.length ?? 0) - (b.serves?.length ?? 0))[0];
      if (!port) continue;
      free.delete(port);
      taken.push({ item, port });
    }
    return onHelper(
      stuck,
      'expander',
      part,
      taken.map((t) => t.port),
      taken.map((t) => t.item),
    );
  });

const register =
  (kind: 'shift-out' | 'shift-in', does: 'input' | 'output'): Finder =>
  (stuck) =>
    helpersFor(stuck.sheets, does)
      .filter((part) => part.bus.kind === 'private')
      .flatMap((part) =>
        onHelper(
          stuck,
          kind,
          part,
          portsOf(part, does),
          unplaced(stuck, (t) => isSlow(t, does)),
        ),
      );

export const shiftOut = register('shift-out', 'output');
export const shiftIn = register('shift-in', 'input');

/** SPI selects on a decoder: one of them at a time is low, which is all that selects need. */
export const decoder: Finder = (stuck) =>
  helpersFor(stuck.sheets, 'select').flatMap((part) =>
    onHelper(
      stuck,
      'decoder',
      part,
      portsOf(part, 'select'),
      unplaced(stuck, (t) => t.terminal.role === 'spi.cs' && t.part.bus.selectLatches !== true),
    ),
  );

/** Push buttons and small keypads as one ladder of resistors on an analog pin. */
export const ladder: Finder = ({ plan, sheets, terminals }) => {
  const part = [...sheets.parts.values()].map((p) => p.sheet).find((p) => p.keys?.as === 'ladder');
  if (!part?.keys) return [];
  const most = part.keys.count;
  const stays = (id: string) => terminals.some((t) => t.placement.id === id && !isMovable(t));
  const gone: string[] = [];
  let room = most;
  for (const placement of plan.placements) {
    const keys = sheets.parts.get(placement.sheet.id)?.sheet.keys;
    if (keys?.as !== 'wires' || keys.count > room || stays(placement.id)) continue;
    room -= keys.count;
    gone.push(placement.id);
  }
  if (most - room < 2) return [];
  return [
    {
      kind: 'ladder',
      parts: 1 - gone.length,
      data: { placements: { is: 'placements', ids: gone }, helper: { is: 'words', text: part.title } },
      edits: [
        ...gone.map((placement): Edit => ({ kind: 'remove-placement', placement })),
        { kind: 'add-placement', placement: newPlacement(plan, part) },
      ],
    },
  ];
};

/** Parts with the same address behind the channels of an I2C multiplexer. */
export const multiplexer: Finder = ({ plan, sheets, terminals, conflict, settled }) => {
  const members = new Set([
    ...(conflict?.members ?? []).filter((m) => m.kind === 'i2c').map((m) => m.placement),
    ...settled.open
      .filter((key) => terminals.find((t) => t.key === key)?.terminal.role.startsWith('i2c.'))
      .map((key) => key.slice(0, key.indexOf(':'))),
  ]);
  const parts = [...sheets.parts.values()].map((p) => p.sheet).filter((p) => p.terminals.list.some((t) => t.channel));
  return parts.flatMap((part) => {
    const helper = newPlacement(plan, part);
    const channels = [...new Set(part.terminals.list.flatMap((t) => t.channel?.number ?? []))].toSorted((a, b) => a - b);
    const lines = (id: string) => terminals.filter((t) => t.placement.id === id && t.terminal.role.startsWith('i2c.'));
    const own = [...members].filter((id) => lines(id).every((t) => isMovable(t))).toReversed();
    // Smallest changes first: the last part of the plan behind a channel, then the last two.
    return own.flatMap((_, n): Draft[] => {
      const behind = own.slice(0, n + 1);
      if (behind.length > channels.length) return [];
      return [
        {
          kind: 'multiplexer',
          parts: 1,
          data: { placements: { is: 'placements', ids: behind }, helper: { is: 'words', text: part.title } },
          edits: [
            { kind: 'add-placement', placement: helper },
            ...behind.flatMap((id, at) =>
              lines(id).flatMap((item): Edit[] => {
                const line = busLineOf(item.terminal.role).line;
                const port = part.terminals.list.find((t) => t.channel?.number === channels[at] && t.channel?.line === line);
                if (!port) return [];
                return [
                  {
                    kind: 'wire',
                    placement: id,
                    terminal: item.terminal.id,
                    end: { to: 'terminal', placement: helper.id, terminal: port.id },
                  },
                ];
              }),
            ),
          ],
        },
      ];
    });
  });
};
