import { chainsOf } from '../nets/chains';
import type { Edit } from '../plan/edit';
import { type Placement, type Plan, terminalKey } from '../plan/plan';
import type { PartSheet, PartTerminal } from '../sheets/partSheet';
import type { Sheets } from '../sheets/sheetIndex';

const ends = (part: PartSheet, which: 'in' | 'out'): readonly PartTerminal[] => part.terminals.list.filter((t) => t.chain === which);

/** The last part of a chain of the same parts, after which another one can go; the chain that begins last where there are several.
 *  Undefined where the part does not chain, or none of its kind is wired. */
export function chainTail(plan: Plan, sheets: Sheets, part: PartSheet): Placement | undefined {
  const [inputs, outputs] = [ends(part, 'in'), ends(part, 'out')];
  if (inputs.length === 0 || inputs.length !== outputs.length) return undefined;
  const used = new Set(
    Object.values(plan.wires).flatMap(({ end }) => (end.to === 'terminal' ? [terminalKey(end.placement, end.terminal)] : [])),
  );
  const isFree = ({ id }: Placement) => outputs.every((t) => !used.has(terminalKey(id, t.id)) && !plan.wires[terminalKey(id, t.id)]);
  const chains = chainsOf(plan, sheets).filter(
    ({ members, circle }) =>
      !circle &&
      members.every(({ sheet, onBoard }) => sheet.id === part.id && !onBoard) &&
      inputs.every((t) => plan.wires[terminalKey(members[0]!.id, t.id)]) &&
      isFree(members.at(-1)!),
  );
  return chains.at(-1)?.members.at(-1);
}

/** Wires the inputs of a new part of a chain to the outputs of the one before it. */
export const chainEdits = (placement: string, part: PartSheet, tail: Placement): readonly Edit[] =>
  ends(part, 'in').map((input, at): Edit => ({
    kind: 'wire',
    placement,
    terminal: input.id,
    end: { to: 'terminal', placement: tail.id, terminal: ends(part, 'out')[at]!.id },
  }));
