import type { Edit } from '@roof-chart/core/plan/edit';
import { newPlacement } from '@roof-chart/core/plan/newPlacement';
import { additionOf } from '@roof-chart/core/review/addition';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { OUT, PLAN, type RegisterCommand } from '../command';
import { applied, deliver, nearest, type Target } from '../deliver';
import { type ExitCode, InputFault, type Io } from '../io';
import { openPlanFile } from '../planFile';

/** `add`: a part, by default with proposed wires. */
function add(io: Io, shipped: Sheets, file: string, partId: string, options: Target & { readonly wires: boolean }): ExitCode {
  const { plan, sheets, carried } = openPlanFile(io, shipped, file);
  const part = sheets.parts.get(partId)?.sheet;
  if (!part) throw new InputFault(`unknown part ${partId}: expected one of ${nearest(sheets.parts.keys())}`);
  const addition = options.wires ? additionOf(plan, sheets, part) : undefined;
  const edits: readonly Edit[] = addition?.edits ?? [{ kind: 'add-placement', placement: newPlacement(plan, part) }];
  return deliver(io, applied(plan, edits, sheets), file, options, carried);
}

export const registerAdd: RegisterCommand = (program, { io, catalogue, done }) => {
  program
    .command('add')
    .description('Adds a part and connects it; existing wires are not moved.')
    .argument('<file>', PLAN)
    .argument('<part>', 'ID of the part sheet')
    .option('--no-wires', 'add the part without wires')
    .option('--out <file>', OUT)
    .action((file: string, part: string, options: { wires: boolean; out?: string }) =>
      done(add(io, catalogue.sheets(), file, part, options)),
    );
};
