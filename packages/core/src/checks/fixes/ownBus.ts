import { findOrThrow } from '../../collections/orThrow';
import { editsOntoFree, linesOfItsOwn } from '../../assign/moveBus';
import { pinSetsOf } from '../../assign/fit/pinSets';
import type { ControllerKind } from '../../sheets/roles';
import type { CheckContext, Remedy } from '../engine/check';

/** Moves a part's lines to an unused controller: the first whose pins are free. */
export function toBusOfItsOwn(context: CheckContext, placementId: string, kind: ControllerKind): readonly Remedy[] {
  const placement = findOrThrow(context.plan.placements, (p) => p.id === placementId);
  const items = linesOfItsOwn(context.plan, context.sheets, placement, kind)?.filter((item) => item.wire);
  if (!items) return [];
  const inUse = new Set(context.buses.map((bus) => bus.controller));
  for (const set of pinSetsOf(context.board, kind)) {
    if (inUse.has(set.controller)) continue;
    const edits = editsOntoFree(context.board, context.nets, items, set);
    if (!edits || edits.length === 0) continue;
    return [
      {
        label: 'own-bus',
        data: {
          placement: { is: 'placement', id: placementId },
          controller: { is: 'controller', id: set.controller },
          pins: { is: 'pins', pins: Object.values(set.pins) },
        },
        grade: 'offered',
        edits,
      },
    ];
  }
  return [];
}
