import { atOrThrow, findOrThrow } from '../../collections/orThrow';
import { assignPins } from '../../assign/assignPins';
import { otherEnds } from '../../nets/otherEnds';
import { type PlanTerminal, terminalsOf } from '../../nets/terminals';
import { applyEdits } from '../../plan/applyEdits';
import { type Edit, partOf } from '../../plan/edit';
import { newPlacement } from '../../plan/newPlacement';
import type { PartSheet } from '../../sheets/partSheet';
import { portsOf } from '../../sheets/ports';
import type { CheckContext, Remedy } from '../engine/check';

/** Nodes of the small search for the wires of a converter. */
const NODES = 400;

const channelsOf = (part: PartSheet) => portsOf(part, 'analog');

/** Analog terminals on channels of a converter of the plan; undefined where it has too few free ones. */
function onPresent(context: CheckContext, items: readonly PlanTerminal[]): Remedy | undefined {
  const { plan, sheets } = context;
  let now = plan;
  const edits: Edit[] = [];
  for (const { placement, terminal } of items) {
    const item = findOrThrow(terminalsOf(now, placement, sheets), (t) => t.terminal.id === terminal.id);
    const end = otherEnds(now, sheets, item).find((one) =>
      partOf(now, one.placement, sheets)?.terminals.get(one.terminal)?.serves?.includes('analog'),
    );
    if (!end) return undefined;
    const edit: Edit = {
      kind: 'wire',
      placement: placement.id,
      terminal: terminal.id,
      end: { to: 'terminal', placement: end.placement, terminal: end.terminal },
    };
    const result = applyEdits(now, [edit], sheets);
    if (!result.ok) return undefined;
    now = result.plan;
    edits.push(edit);
  }
  const [first] = edits;
  const helper = first?.kind === 'wire' && first.end.to === 'terminal' ? first.end.placement : '';
  return { label: 'on-adc', grade: 'offered', edits, data: { helper: { is: 'placement', id: helper } } };
}

/** Analog terminals on a converter that is added and wired: the smallest that has channels enough and finds its pins. */
function onNew({ plan, sheets }: CheckContext, items: readonly PlanTerminal[]): Remedy | undefined {
  const helpers = [...sheets.parts.values()]
    .map((part) => part.sheet)
    .filter((part) => channelsOf(part).length >= items.length)
    .toSorted((a, b) => channelsOf(a).length - channelsOf(b).length || b.id.localeCompare(a.id));
  for (const part of helpers) {
    const placement = newPlacement(plan, part);
    const channels = channelsOf(part);
    const edits: readonly Edit[] = [
      { kind: 'add-placement', placement },
      ...items.map(({ placement: own, terminal }, at): Edit => ({
        kind: 'wire',
        placement: own.id,
        terminal: terminal.id,
        end: { to: 'terminal', placement: placement.id, terminal: atOrThrow(channels, at).id },
      })),
      ...(part.supply?.capacitors ? [{ kind: 'capacitors' as const, placement: placement.id, there: true }] : []),
    ];
    const added = applyEdits(plan, edits, sheets);
    const settled = added.ok ? assignPins(added.plan, sheets, { only: placement.id, freeze: true, nodes: NODES }) : undefined;
    if (!settled || settled.open.some((key) => key.startsWith(`${placement.id}:`)) || settled.costs.moved > 0) continue;
    return {
      label: 'add-adc',
      grade: 'offered',
      edits: [...edits, ...settled.edits],
      data: { adc: { is: 'parts', ids: [part.id] } },
    };
  }
  return undefined;
}

/** "Use free channels of CONVERTER", or "Add CONVERTER": for analog terminals that no pin of the board serves.
 *  @param open terminals of one part without a wire */
export function onAdc(context: CheckContext, open: readonly PlanTerminal[]): readonly Remedy[] {
  const items = open.filter(({ terminal }) => terminal.role === 'adc.in');
  if (items.length === 0) return [];
  const found = onPresent(context, items) ?? onNew(context, items);
  return found ? [found] : [];
}
