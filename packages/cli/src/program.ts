import { Command, CommanderError } from 'commander';
import { planJsonSchema } from '@roof-chart/core/plan/planJsonSchema';
import { sheetJsonSchema } from '@roof-chart/core/sheets/jsonSchema';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { bench, type BenchOptions, scan, type ScanOptions } from './commands/bench';
import { calc, type CalcOptions } from './commands/calc';
import { check } from './commands/check';
import { checkPages } from './commands/checkPages';
import { cliPage } from './commands/cliPage';
import { add, create, diff, edit, lock, show, wire } from './commands/edits';
import { exportPlan, type ExportOptions } from './commands/export';
import { importWires, type ImportOptions } from './commands/importWires';
import { fits, type FitsOptions } from './commands/fits';
import { explain, settle, type SettleOptions } from './commands/settle';
import { identify, type IdentifyOptions } from './commands/identify';
import { noteChecked, sheets as listSheets } from './commands/sheets';
import { EXIT, InputFault, type Io } from './io';

const PLAN = 'plan file, or - for standard input';
const OUT = 'where the changed plan goes (back into its file; - for standard output)';

/** The shipped sheets: read when a command asks for them. */
export interface Catalogue {
  readonly folder: string;
  sheets(this: void): Sheets;
}

/** The command line as a value: its help, and what each command does. The exit code goes to `done`. */
export function makeProgram(io: Io, { sheets, folder: catalogueFolder }: Catalogue, done: (code: number) => void): Command {
  const program = new Command('roof-chart').description('Plans of microcontroller boards on the command line.').exitOverride();
  // Commands inherit this only when they are made after it.
  program.configureOutput({ writeOut: (text) => io.out(text.trimEnd()), writeErr: (text) => io.err(text.trimEnd()) });
  program
    .command('new')
    .description('An empty plan on a board.')
    .argument('<board>', 'id of the board sheet')
    .option('--name <name>', 'name of the plan', 'New plan')
    .option('--id <id>', 'id of the plan', 'plan')
    .option('--out <file>', 'where the plan goes', '-')
    .action((board: string, options: { name: string; id: string; out: string }) => done(create(io, sheets(), board, options)));
  program
    .command('add')
    .description('Adds a part, wired where it fits; nothing that is wired is moved.')
    .argument('<file>', PLAN)
    .argument('<part>', 'id of the part sheet')
    .option('--no-wires', 'add the part only')
    .option('--out <file>', OUT)
    .action((file: string, part: string, options: { wires: boolean; out?: string }) => done(add(io, sheets(), file, part, options)));
  program
    .command('edit')
    .description('Applies a JSON list of edits, all or none.')
    .argument('<file>', PLAN)
    .argument('<edits>', 'JSON file with the list, or -')
    .option('--out <file>', OUT)
    .action((file: string, edits: string, options: { out?: string }) => done(edit(io, sheets(), file, edits, options)));
  program
    .command('wire')
    .description('Wires a terminal to a pin, rail, ground or another terminal, or opens it.')
    .argument('<file>', PLAN)
    .argument('<terminal>', 'part:terminal')
    .argument('<end>', 'GP4, rail:3v3, ground, part:terminal, or open')
    .option('--out <file>', OUT)
    .action((file: string, from: string, to: string, options: { out?: string }) => done(wire(io, sheets(), file, from, to, options)));
  program
    .command('lock')
    .description('Locks a wire, so that nothing moves it.')
    .argument('<file>', PLAN)
    .argument('<terminal>', 'part:terminal')
    .option('--off', 'unlock it', false)
    .option('--out <file>', OUT)
    .action((file: string, at: string, options: { off: boolean; out?: string }) => done(lock(io, sheets(), file, at, options)));
  program
    .command('check')
    .description('Findings of a plan, each with its fixes.')
    .argument('<file>', PLAN)
    .option('--json', 'findings as JSON', false)
    .action((file: string, options: { json: boolean }) => done(check(io, sheets(), file, options.json)));
  program
    .command('assign')
    .description('Assigns pins: connects everything in the best way and says what is proved; existing wires move only where they must.')
    .argument('<file>', PLAN)
    .option('--out <file>', 'where the plan with assigned pins goes (- for standard output); without it nothing is written')
    .option('--seconds <n>', 'time limit; at its end the best found is given, with its bound', '10')
    .option('--instance', 'the problem as JSON, for any other solver', false)
    .option('--json', 'edits, costs and proof as JSON', false)
    .action((file: string, options: SettleOptions) => done(settle(io, sheets(), file, options, () => performance.now())));
  program
    .command('explain')
    .description('Why a terminal is on its pin, and the cost of every other pin; without a terminal, which terminals compete.')
    .argument('<file>', PLAN)
    .argument('[terminal]', 'part:terminal')
    .option('--json', 'as JSON', false)
    .action((file: string, terminal: string | undefined, options: { json: boolean }) =>
      done(explain(io, sheets(), file, terminal, options.json)),
    );
  program
    .command('fits')
    .description('Which boards could carry the plan’s parts, best first; or, with --parts, which further parts its board could carry.')
    .argument('<file>', PLAN)
    .option('--parts', 'every part of the catalogue: can one more be added, what would move, what would be found', false)
    .option('--switch <board>', 'move the plan to this board and assign its pins there')
    .option('--out <file>', 'with --switch: where the changed plan goes (back into its file; - for standard output)')
    .option('--json', 'as JSON', false)
    .action((file: string, options: FitsOptions) => done(fits(io, sheets(), file, options)));
  program
    .command('calc')
    .description('One calculation with its working, without a plan.')
    .argument('[calculation]', 'which one; without it they are listed')
    .argument('[inputs...]', 'name=value, with SI prefixes: hz=400k capacitance=86p')
    .option('--list', 'every calculation with its inputs, units, defaults, outputs and source', false)
    .option('--json', 'as JSON', false)
    .action((id: string | undefined, given: string[], options: CalcOptions) => done(calc(io, sheets, id, given, options)));
  program
    .command('export')
    .description('A plan as constants for a program, as a table of wires or as data; without a format, which there are.')
    .argument('[file]', PLAN)
    .argument('[format]', 'cpp, c, micropython, rust, overlay, json, yaml, toml, csv, svg, markdown')
    .option('--out <file>', 'where it goes', '-')
    .action((file: string | undefined, format: string | undefined, options: ExportOptions) =>
      done(exportPlan(io, sheets, file, format, options)),
    );
  program
    .command('import')
    .description('Takes a list of wires into a plan: CSV, tabs, a Markdown table, or lines such as "OLED SDA -> GP4".')
    .argument('<file>', PLAN)
    .argument('<list>', 'the list, or - for standard input')
    .option('--out <file>', OUT)
    .action((file: string, list: string, options: ImportOptions) => done(importWires(io, sheets(), file, list, options)));
  program
    .command('scan')
    .description('A scan result of an I2C bus held against the plan: grids, lines with 0x.., lists.')
    .argument('<file>', PLAN)
    .argument('<result>', 'text of the scan result, or - for standard input')
    .option('--bus <controller>', 'the bus that was scanned; else the one that it is most like')
    .option('--json', 'as JSON', false)
    .action((file: string, result: string, options: ScanOptions) => done(scan(io, sheets(), file, result, options)));
  program
    .command('bench')
    .description('The plan as a simulated bench: answers the line protocol of the probe on standard input and output.')
    .argument('<file>', PLAN)
    .option(
      '--fault <key>',
      'something that is wrong on it; may be given several times',
      (key: string, all: string[]) => [...all, key],
      [] as string[],
    )
    .option('--seed <n>', 'another bench of the same kind: resistors within their tolerance', '1')
    .option('--list', 'the faults that a bench of this plan can have', false)
    .option('--check', 'run the bench check on it and say what it finds', false)
    .action(async (file: string, options: BenchOptions) => done(await bench(io, sheets(), file, options)));
  program
    .command('show')
    .description('A plan as text: parts, terminals, where they go.')
    .argument('<file>', PLAN)
    .option('--json', 'the plan document', false)
    .action((file: string, options: { json: boolean }) => done(show(io, sheets(), file, options.json)));
  program
    .command('diff')
    .description('What differs between two plans on one board.')
    .argument('<from>', PLAN)
    .argument('<to>', PLAN)
    .option('--json', 'the edits that lead from the first to the second', false)
    .action((from: string, to: string, options: { json: boolean }) => done(diff(io, sheets(), from, to, options.json)));
  program
    .command('identify')
    .description('Which part sheets printed labels and other clues may belong to.')
    .option('--labels <row>', 'printed labels in their order: "GND VCC D0 D1 RES DC CS"')
    .option('--pins <count>', 'connection points counted')
    .option('--size <size>', 'inches or resolution: 0.96, 128x64')
    .option('--does <words>', 'what it does: temperature')
    .option('--chip <marking>', 'marking of the chip')
    .option('--json', 'candidates as JSON', false)
    .action((options: IdentifyOptions) => done(identify(io, sheets(), options)));
  program
    .command('sheets')
    .description('Boards and parts of the catalogue, counted by family and trust.')
    .option('--json', 'counts and ids as JSON', false)
    .option('--note <file>', 'check every sheet and note the digest of the sound files')
    .action((options: { json: boolean; note?: string }) =>
      done(options.note ? noteChecked(catalogueFolder, options.note) : listSheets(io, sheets(), options.json)),
    );
  program
    .command('schemas')
    .description('Writes the JSON Schemas of sheets and plan files.')
    .argument('<folder>', 'folder of the schemas')
    .action((folder: string) => {
      io.write(`${folder}/plan.schema.json`, `${JSON.stringify(planJsonSchema(), null, 2)}\n`);
      for (const kind of ['board', 'part'] as const)
        io.write(`${folder}/${kind}-sheet.schema.json`, `${JSON.stringify(sheetJsonSchema(kind), null, 2)}\n`);
      done(EXIT.clean);
    });
  program
    .command('check-pages')
    .description('Writes the documentation pages of the checks.')
    .argument('<folder>', 'folder of the pages')
    .action((folder: string) => done(checkPages(io, folder)));
  program
    .command('cli-page')
    .description('Writes this documentation.')
    .argument('<file>', 'the page')
    .action((file: string) => {
      io.write(file, cliPage(program));
      done(EXIT.clean);
    });
  return program;
}

/** Runs a command. @returns its exit code; bad input and bad usage are 2, each with a plain sentence */
export async function runProgram(args: readonly string[], io: Io, catalogue: Catalogue): Promise<number> {
  let code: number = EXIT.clean;
  try {
    await makeProgram(io, catalogue, (c) => (code = c)).parseAsync([...args], { from: 'user' });
    return code;
  } catch (error) {
    if (error instanceof CommanderError) return error.exitCode === 0 ? EXIT.clean : EXIT.badInput;
    // What nobody foresaw is told in one line, too: a stack trace helps only who wrote the program.
    const words =
      error instanceof InputFault
        ? error.message
        : `This should not have happened: ${(error as Error).message}. Please report it with your command.`;
    if (!(error instanceof InputFault) && process.env['ROOF_CHART_DEBUG']) io.err(String((error as Error).stack));
    io.err(words);
    return EXIT.badInput;
  }
}
