import { atOrThrow, firstOrThrow, lastOrThrow } from '../collections/orThrow';
import { chainsOf, isReadChain } from '../nets/chains';
import type { Edit } from '../plan/edit';
import { type Placement, type Plan, terminalKey } from '../plan/plan';
import type { PartSheet, PartTerminal } from '../sheets/partSheet';
import type { Sheets } from '../sheets/sheetIndex';

const ends = (part: PartSheet, which: 'in' | 'out'): readonly PartTerminal[] => part.terminals.list.filter((t) => t.chain === which);

/** The end of a chain of the same parts at which another one can join: the last part of a chain that the board feeds, the first of one that it
 *  reads; that of the chain which begins last where there are several. Undefined where the part does not chain, or none of its kind is
 *  wired. */
export function chainTail(plan: Plan, sheets: Sheets, part: PartSheet): Placement | undefined {
  const [inputs, outputs] = [ends(part, 'in'), ends(part, 'out')];
  if (inputs.length === 0 || inputs.length !== outputs.length) return undefined;
  const used = new Set(
    Object.values(plan.wires).flatMap(({ end }) => (end.to === 'terminal' ? [terminalKey(end.placement, end.terminal)] : [])),
  );
  const isWired = ({ id }: Placement, terminals: readonly PartTerminal[]) => terminals.every((t) => plan.wires[terminalKey(id, t.id)]);
  const isFree = ({ id }: Placement, terminals: readonly PartTerminal[]) =>
    terminals.every((t) => !used.has(terminalKey(id, t.id)) && !plan.wires[terminalKey(id, t.id)]);
  const chains = chainsOf(plan, sheets).filter(({ members, circle }) => {
    const [first, last] = [firstOrThrow(members), lastOrThrow(members)];
    if (circle || !members.every(({ sheet, onBoard }) => sheet.id === part.id && !onBoard)) return false;
    return isReadChain(part) ? isWired(last, outputs) && isFree(first, inputs) : isWired(first, inputs) && isFree(last, outputs);
  });
  const chain = chains.at(-1)?.members;
  return isReadChain(part) ? chain?.[0] : chain?.at(-1);
}

/** Wires a new part to the end of a chain: its inputs to the outputs of the last one, or the inputs of the first one to its outputs. */
export const chainEdits = (placement: string, part: PartSheet, tail: Placement): readonly Edit[] => {
  const [from, to] = isReadChain(part) ? [tail.id, placement] : [placement, tail.id];
  return ends(part, 'in').map((input, at): Edit => ({
    kind: 'wire',
    placement: from,
    terminal: input.id,
    end: { to: 'terminal', placement: to, terminal: atOrThrow(ends(part, 'out'), at).id },
  }));
};
