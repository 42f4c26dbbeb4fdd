import { resourcesAt } from '../../assign/model/sharedResources';
import { memoizeByObject } from '../../memo/memoizeByObject';
import type { BoardPin } from '../../sheets/boardSheet';
import type { PlanTerminal } from '../../nets/terminals';
import type { CheckContext, Remedy } from '../engine/check';
import { moveWhere } from '../fixes/remedyParts';

export interface ResourceUser {
  readonly item: PlanTerminal;
  readonly pin: BoardPin;
  readonly resources: readonly string[];
}

/** Every terminal on a pin with the shared resources that it uses there. Two checks ask for those of the same plan. */
export const resourceUsers = memoizeByObject(({ terminals, board }: CheckContext): readonly ResourceUser[] =>
  terminals.flatMap((item) => {
    const pin = item.wire?.end.to === 'pin' ? board.pins.get(item.wire.end.pin) : undefined;
    const resources = pin ? resourcesAt(pin, [item]) : [];
    return pin && resources.length > 0 ? [{ item, pin, resources }] : [];
  }),
);

export interface ResourcePair {
  readonly resources: string;
  readonly users: readonly [ResourceUser, ResourceUser];
}

/** Pairs of different pins that use one of these resources, each pair once; one pin for two is another check's business. */
export function pairsOn(users: readonly ResourceUser[], kind: string): readonly ResourcePair[] {
  return users.flatMap((a, at) =>
    users.slice(at + 1).flatMap((b): ResourcePair[] => {
      const resources = a.resources.find((id) => id.startsWith(`${kind} `) && b.resources.includes(id));
      return resources !== undefined && a.pin.id !== b.pin.id ? [{ resources, users: [a, b] }] : [];
    }),
  );
}

/** Moves one of a pair, the later first, to a free pin without the shared resource. */
export function moveApart(
  context: CheckContext,
  all: readonly ResourceUser[],
  { users: [a, b] }: ResourcePair,
  meets: (item: PlanTerminal, resources: readonly string[], other: ResourceUser) => boolean,
): readonly Remedy[] {
  return [b, a].flatMap(({ item }) =>
    moveWhere(context, item, (pin) => {
      const resources = resourcesAt(pin, [item]);
      return all.every((other) => other.item.key === item.key || !meets(item, resources, other));
    }),
  );
}
