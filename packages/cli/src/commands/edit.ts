import { firstOrThrow } from '@roof-chart/core/collections/orThrow';
import type { Edit } from '@roof-chart/core/plan/edit';
import { editsSchema } from '@roof-chart/core/plan/editSchema';
import { upgradeEdits } from '@roof-chart/core/plan/upgradePlan';
import { unsafePlace } from '@roof-chart/core/sheets/unsafePlace';
import { OUT, PLAN, type CommandContext, type RegisterCommand } from '../command';
import { applied, deliver, type Target } from '../deliver';
import { type ExitCode, InputFault } from '../io';
import { readJson } from '../planFile';

/** `edit`: a JSON list of edits, all or none. */
function edit({ io, open }: CommandContext, file: string, editsFile: string, options: Target): ExitCode {
  if (file === '-' && editsFile === '-') throw new InputFault('the plan and the edits cannot both come from standard input');
  const opened = open(file);
  const document = readJson(io, editsFile);
  const unsafe = unsafePlace(document);
  if (unsafe !== undefined) throw new InputFault(`${editsFile}: ${unsafe}: unknown key or nesting depth`);
  const { error, value } = editsSchema.required().validate(upgradeEdits(document), { convert: false });
  if (error) throw new InputFault(`${editsFile}: ${firstOrThrow(error.details).path.join('.') || 'the list'}: ${error.message}`);
  return deliver(io, applied(opened.plan, value as Edit[], opened.sheets), opened, options);
}

export const registerEdit: RegisterCommand = (program, context) => {
  program
    .command('edit')
    .description('Applies a JSON list of edits, all or none.')
    .argument('<file>', PLAN)
    .argument('<edits>', 'JSON file with the list, or -')
    .option('--out <file>', OUT)
    .action((file: string, edits: string, options: { out?: string }) => context.done(edit(context, file, edits, options)));
};
