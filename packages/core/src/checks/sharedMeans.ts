import { meansOf } from '../allocate/means';
import { remembered } from '../quantity/remembered';
import type { BoardPin } from '../sheets/boardSheet';
import type { PlanTerminal } from '../nets/terminals';
import type { CheckContext, Remedy } from './check';
import { moveWhere } from './remedyParts';

export interface MeansUser {
  readonly item: PlanTerminal;
  readonly pin: BoardPin;
  readonly means: readonly string[];
}

/** Every terminal on a pin with the shared means that it uses there. Two checks ask for those of the same plan. */
export const meansUsers = remembered(({ terminals, board }: CheckContext): readonly MeansUser[] =>
  terminals.flatMap((item) => {
    const pin = item.wire?.end.to === 'pin' ? board.pins.get(item.wire.end.pin) : undefined;
    const means = pin ? meansOf(pin, [item]) : [];
    return pin && means.length > 0 ? [{ item, pin, means }] : [];
  }),
);

export interface MeansPair {
  readonly means: string;
  readonly users: readonly [MeansUser, MeansUser];
}

/** Pairs of different pins that use one of these means, each pair once; one pin for two is another check's business. */
export function pairsOn(users: readonly MeansUser[], kind: string): readonly MeansPair[] {
  return users.flatMap((a, at) =>
    users.slice(at + 1).flatMap((b): MeansPair[] => {
      const means = a.means.find((id) => id.startsWith(`${kind} `) && b.means.includes(id));
      return means !== undefined && a.pin.id !== b.pin.id ? [{ means, users: [a, b] }] : [];
    }),
  );
}

/** Moves one of a pair, the later first, to a free pin without the shared resource. */
export function moveApart(
  context: CheckContext,
  all: readonly MeansUser[],
  { users: [a, b] }: MeansPair,
  meets: (item: PlanTerminal, means: readonly string[], other: MeansUser) => boolean,
): readonly Remedy[] {
  return [b, a].flatMap(({ item }) =>
    moveWhere(context, item, (pin) => {
      const means = meansOf(pin, [item]);
      return all.every((other) => other.item.key === item.key || !meets(item, means, other));
    }),
  );
}
