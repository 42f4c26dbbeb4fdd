import type { Edit } from '@roof-chart/core/plan/edit';
import { newPlacement } from '@roof-chart/core/plan/newPlacement';
import { additionOf } from '@roof-chart/core/review/addition';
import { OUT, PLAN, type CommandContext, type RegisterCommand } from '../command';
import { applied, deliver, nearest, type Target } from '../deliver';
import { type ExitCode, InputFault } from '../io';

/** `add`: a part, by default with proposed wires. */
function add({ io, open }: CommandContext, file: string, partId: string, options: Target & { readonly wires: boolean }): ExitCode {
  const opened = open(file);
  const { plan, sheets } = opened;
  const part = sheets.parts.get(partId)?.sheet;
  if (!part) throw new InputFault(`unknown part ${partId}: expected one of ${nearest(sheets.parts.keys())}`);
  const addition = options.wires ? additionOf(plan, sheets, part) : undefined;
  const edits: readonly Edit[] = addition?.edits ?? [{ kind: 'add-placement', placement: newPlacement(plan, part) }];
  return deliver(io, applied(plan, edits, sheets), opened, options);
}

export const registerAdd: RegisterCommand = (program, context) => {
  program
    .command('add')
    .description('Adds a part and connects it; existing wires are not moved.')
    .argument('<file>', PLAN)
    .argument('<part>', 'ID of the part sheet')
    .option('--no-wires', 'add the part without wires')
    .option('--out <file>', OUT)
    .action((file: string, part: string, options: { wires: boolean; out?: string }) => context.done(add(context, file, part, options)));
};
