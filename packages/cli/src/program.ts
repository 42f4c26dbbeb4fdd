import { Command, CommanderError } from 'commander';
import type { Catalogue, CommandContext, RegisterCommand } from './command';
import { openPlanFile } from './planFile';
import { registerAdd } from './commands/add';
import { registerBench, registerScan } from './commands/bench';
import { registerCalc } from './commands/calc';
import { registerCheck } from './commands/check';
import { registerCheckPages } from './commands/checkPages';
import { registerCliPage } from './commands/cliPage';
import { registerDiff } from './commands/diff';
import { registerEdit } from './commands/edit';
import { registerExport } from './commands/export';
import { registerFits } from './commands/fits';
import { registerIdentify } from './commands/identify';
import { registerImport } from './commands/importWires';
import { registerLock } from './commands/lock';
import { registerNew } from './commands/newPlan';
import { registerSchemas } from './commands/schemas';
import { registerAssign, registerExplain } from './commands/settle';
import { registerSheets } from './commands/sheets';
import { registerShow } from './commands/show';
import { registerWire } from './commands/wire';
import { EXIT, InputFault, type Io } from './io';

/** The commands, in the order of the help. */
const COMMANDS: readonly RegisterCommand[] = [
  registerNew,
  registerAdd,
  registerEdit,
  registerWire,
  registerLock,
  registerCheck,
  registerAssign,
  registerExplain,
  registerFits,
  registerCalc,
  registerExport,
  registerImport,
  registerScan,
  registerBench,
  registerShow,
  registerDiff,
  registerIdentify,
  registerSheets,
  registerSchemas,
  registerCheckPages,
  registerCliPage,
];

/** The command line as a value: its help, and what each command does. */
function makeProgram(context: CommandContext): Command {
  const { io } = context;
  const program = new Command('roof-chart')
    .description('Plans, checks and calculates microcontroller wiring on the command line.')
    .exitOverride();
  // Commands inherit this only when they are made after it.
  program.configureOutput({ writeOut: (text) => io.out(text.trimEnd()), writeErr: (text) => io.err(text.trimEnd()) });
  for (const register of COMMANDS) register(program, context);
  return program;
}

/** Runs a command. @returns its exit code; bad input and bad usage are 2, each with a plain sentence */
export async function runProgram(args: readonly string[], io: Io, catalogue: Catalogue): Promise<number> {
  let code: number = EXIT.clean;
  try {
    await makeProgram({ io, catalogue, open: (file) => openPlanFile(io, catalogue.sheets(), file), done: (c) => (code = c) }).parseAsync(
      [...args],
      { from: 'user' },
    );
    return code;
  } catch (error) {
    if (error instanceof CommanderError) return error.exitCode === 0 ? EXIT.clean : EXIT.badInput;
    // Unexpected errors are also reported in one line; a stack trace helps only developers.
    const words =
      error instanceof InputFault
        ? error.message
        : `Internal error: ${(error as Error).message}. Please report it with the command you used.`;
    if (!(error instanceof InputFault) && process.env['ROOF_CHART_DEBUG']) io.err(String((error as Error).stack));
    io.err(words);
    return EXIT.badInput;
  }
}
