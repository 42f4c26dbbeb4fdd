import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { OUT, PLAN, type RegisterCommand } from '../command';
import { applied, deliver, type Target } from '../deliver';
import type { ExitCode, Io } from '../io';
import { openPlanFile } from '../planFile';
import { terminalAt } from '../terminalAt';

/** `lock`: one wire, or with `off` free again. */
function lock(io: Io, shipped: Sheets, file: string, at: string, options: Target & { readonly off: boolean }): ExitCode {
  const { plan, sheets, carried } = openPlanFile(io, shipped, file);
  return deliver(io, applied(plan, [{ kind: 'lock', ...terminalAt(at), locked: !options.off }], sheets), file, options, carried);
}

export const registerLock: RegisterCommand = (program, { io, catalogue, done }) => {
  program
    .command('lock')
    .description('Locks a wire so that it is not moved.')
    .argument('<file>', PLAN)
    .argument('<terminal>', 'part:terminal')
    .option('--off', 'unlock it', false)
    .option('--out <file>', OUT)
    .action((file: string, at: string, options: { off: boolean; out?: string }) => done(lock(io, catalogue.sheets(), file, at, options)));
};
