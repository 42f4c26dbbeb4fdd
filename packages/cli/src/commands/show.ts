import { PLAN, type CommandContext, type RegisterCommand } from '../command';
import { asJson } from '../deliver';
import { EXIT, type ExitCode } from '../io';
import { planText } from '../planText';

/** `show`: the plan as text, or its document. */
function show({ io, open }: CommandContext, file: string, json: boolean): ExitCode {
  const { plan, sheets } = open(file);
  io.out(json ? asJson(plan) : planText(plan, sheets));
  return EXIT.clean;
}

export const registerShow: RegisterCommand = (program, context) => {
  program
    .command('show')
    .description('Prints a plan as text: parts, terminals and their connections.')
    .argument('<file>', PLAN)
    .option('--json', 'the plan document', false)
    .action((file: string, options: { json: boolean }) => context.done(show(context, file, options.json)));
};
