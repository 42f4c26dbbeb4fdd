import { OUT, PLAN, type CommandContext, type RegisterCommand } from '../command';
import { applied, deliver, type Target } from '../deliver';
import type { ExitCode } from '../io';
import { terminalAt } from '../terminalAt';

/** `lock`: one wire, or with `off` free again. */
function lock({ io, open }: CommandContext, file: string, at: string, options: Target & { readonly off: boolean }): ExitCode {
  const opened = open(file);
  const { plan, sheets } = opened;
  return deliver(io, applied(plan, [{ kind: 'lock', ...terminalAt(at), locked: !options.off }], sheets), opened, options);
}

export const registerLock: RegisterCommand = (program, context) => {
  program
    .command('lock')
    .description('Locks a wire so that it is not moved.')
    .argument('<file>', PLAN)
    .argument('<terminal>', 'part:terminal')
    .option('--off', 'unlock it', false)
    .option('--out <file>', OUT)
    .action((file: string, at: string, options: { off: boolean; out?: string }) => context.done(lock(context, file, at, options)));
};
