import { Command, CommanderError } from 'commander';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { check } from './commands/check';
import { checkPages } from './commands/checkPages';
import { EXIT, InputFault, type Io } from './io';

/** The command line as a value: its help, and what each command does. The exit code goes to `done`. */
export function makeProgram(io: Io, sheets: () => Sheets, done: (code: number) => void): Command {
  const program = new Command('roof-chart')
    .description('Checks plans of microcontroller boards on the command line.')
    .exitOverride()
    .configureOutput({ writeOut: (text) => io.out(text.trimEnd()), writeErr: (text) => io.err(text.trimEnd()) });
  program
    .command('check')
    .description('Findings of a plan. Exit code 0 without a clash, 1 with one, 2 for bad input.')
    .argument('<file>', 'plan file, or - for standard input')
    .option('--json', 'findings as JSON', false)
    .action((file: string, options: { json: boolean }) => done(check(io, sheets(), file, options.json)));
  program
    .command('check-pages')
    .description('Writes the documentation pages of the checks.')
    .argument('<folder>')
    .action((folder: string) => done(checkPages(io, folder)));
  return program;
}

/** Runs a command. @returns its exit code; bad input and bad usage are 2, each with a plain sentence */
export async function runProgram(args: readonly string[], io: Io, sheets: () => Sheets): Promise<number> {
  let code: number = EXIT.clean;
  try {
    await makeProgram(io, sheets, (c) => (code = c)).parseAsync([...args], { from: 'user' });
    return code;
  } catch (error) {
    if (error instanceof CommanderError) return error.exitCode === 0 ? EXIT.clean : EXIT.badInput;
    if (!(error instanceof InputFault)) throw error;
    io.err(error.message);
    return EXIT.badInput;
  }
}
