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
const OUT = 'file for the changed plan (default: overwrite the input; - for standard output)';

/** The library, loaded on demand. */
export interface Catalogue {
  readonly folder: string;
  sheets(this: void): Sheets;
}

/** The command line as a value: its help, and what each command does. The exit code goes to `done`. */
function makeProgram(io: Io, { sheets, folder: catalogueFolder }: Catalogue, done: (code: number) => void): Command {
  const program = new Command('roof-chart')
    .description('Plans, checks and calculates microcontroller wiring on the command line.')
    .exitOverride();
  // Commands inherit this only when they are made after it.
  program.configureOutput({ writeOut: (text) => io.out(text.trimEnd()), writeErr: (text) => io.err(text.trimEnd()) });
  program
    .command('new')
    .description('Creates an empty plan for a board.')
    .argument('<board>', 'ID of the board sheet')
    .option('--name <name>', 'name of the plan', 'New plan')
    .option('--id <id>', 'ID of the plan', 'plan')
    .option('--out <file>', 'file for the plan', '-')
    .action((board: string, options: { name: string; id: string; out: string }) => done(create(io, sheets(), board, options)));
  program
    .command('add')
    .description('Adds a part and connects it; existing wires are not moved.')
    .argument('<file>', PLAN)
    .argument('<part>', 'ID of the part sheet')
    .option('--no-wires', 'add the part without wires')
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
    .description('Connects a terminal to a pin, a rail, ground or another terminal, or disconnects it.')
    .argument('<file>', PLAN)
    .argument('<terminal>', 'part:terminal')
    .argument('<end>', 'GP4, rail:3v3, ground, part:terminal, or open')
    .option('--out <file>', OUT)
    .action((file: string, from: string, to: string, options: { out?: string }) => done(wire(io, sheets(), file, from, to, options)));
  program
    .command('lock')
    .description('Locks a wire so that it is not moved.')
    .argument('<file>', PLAN)
    .argument('<terminal>', 'part:terminal')
    .option('--off', 'unlock it', false)
    .option('--out <file>', OUT)
    .action((file: string, at: string, options: { off: boolean; out?: string }) => done(lock(io, sheets(), file, at, options)));
  program
    .command('check')
    .description('Checks a plan: findings with their fixes.')
    .argument('<file>', PLAN)
    .option('--json', 'findings as JSON', false)
    .action((file: string, options: { json: boolean }) => done(check(io, sheets(), file, options.json)));
  program
    .command('assign')
    .description('Assigns pins optimally and states what is proved; existing wires move only where necessary.')
    .argument('<file>', PLAN)
    .option('--out <file>', 'file for the plan with assigned pins (- for standard output); without it nothing is written')
    .option('--seconds <n>', 'time limit; the best solution found is returned with its bound', '10')
    .option('--instance', 'the problem as JSON, for any other solver', false)
    .option('--json', 'edits, costs and proof as JSON', false)
    .action((file: string, options: SettleOptions) => done(settle(io, sheets(), file, options, () => performance.now())));
  program
    .command('explain')
    .description(
      'Explains why a terminal is on its pin and what every other pin would cost; without a terminal, lists terminals that compete.',
    )
    .argument('<file>', PLAN)
    .argument('[terminal]', 'part:terminal')
    .option('--json', 'as JSON', false)
    .action((file: string, terminal: string | undefined, options: { json: boolean }) =>
      done(explain(io, sheets(), file, terminal, options.json)),
    );
  program
    .command('fits')
    .description('Lists boards that fit the parts of the plan, best first; with --parts, parts that fit on its board.')
    .argument('<file>', PLAN)
    .option('--parts', 'for every part in the library: whether one more fits, which wires move, which findings result', false)
    .option('--switch <board>', 'move the plan to this board and assign its pins there')
    .option('--out <file>', 'with --switch: file for the changed plan (default: overwrite the input; - for standard output)')
    .option('--json', 'as JSON', false)
    .action((file: string, options: FitsOptions) => done(fits(io, sheets(), file, options)));
  program
    .command('calc')
    .description('Runs one calculation and shows the working; no plan needed.')
    .argument('[calculation]', 'calculation; without it, all are listed')
    .argument('[inputs...]', 'name=value, with SI prefixes: hz=400k capacitance=86p')
    .option('--list', 'list calculations with inputs, units, defaults, outputs and source', false)
    .option('--json', 'as JSON', false)
    .action((id: string | undefined, given: string[], options: CalcOptions) => done(calc(io, sheets, id, given, options)));
  program
    .command('export')
    .description('Exports constants for a program, a wire list or data; without a format, lists the formats.')
    .argument('[file]', PLAN)
    .argument('[format]', 'cpp, c, micropython, rust, overlay, json, yaml, toml, csv, components, svg, markdown')
    .option('--out <file>', 'output file', '-')
    .action((file: string | undefined, format: string | undefined, options: ExportOptions) =>
      done(exportPlan(io, sheets, file, format, options)),
    );
  program
    .command('import')
    .description('Imports a wire list into a plan: CSV, tab-separated, a Markdown table, or lines such as "OLED SDA -> GP4".')
    .argument('<file>', PLAN)
    .argument('<list>', 'the list, or - for standard input')
    .option('--out <file>', OUT)
    .action((file: string, list: string, options: ImportOptions) => done(importWires(io, sheets(), file, list, options)));
  program
    .command('scan')
    .description('Compares an I2C scan result with the plan: grids, lines with 0x.., lists.')
    .argument('<file>', PLAN)
    .argument('<result>', 'text of the scan result, or - for standard input')
    .option('--bus <controller>', 'the bus that was scanned (default: the best match)')
    .option('--json', 'as JSON', false)
    .action((file: string, result: string, options: ScanOptions) => done(scan(io, sheets(), file, result, options)));
  program
    .command('bench')
    .description('Simulates the bench of a plan: speaks the probe’s line protocol on standard input and output.')
    .argument('<file>', PLAN)
    .option('--fault <key>', 'fault to simulate; may be repeated', (key: string, all: string[]) => [...all, key], [] as string[])
    .option('--seed <n>', 'seed for component values within their tolerances', '1')
    .option('--list', 'list the faults that can be simulated', false)
    .option('--check', 'run the bench test and report the result', false)
    .action(async (file: string, options: BenchOptions) => done(await bench(io, sheets(), file, options)));
  program
    .command('show')
    .description('Prints a plan as text: parts, terminals and their connections.')
    .argument('<file>', PLAN)
    .option('--json', 'the plan document', false)
    .action((file: string, options: { json: boolean }) => done(show(io, sheets(), file, options.json)));
  program
    .command('diff')
    .description('Shows the differences between two plans for the same board.')
    .argument('<from>', PLAN)
    .argument('<to>', PLAN)
    .option('--json', 'the edits that turn the first into the second', false)
    .action((from: string, to: string, options: { json: boolean }) => done(diff(io, sheets(), from, to, options.json)));
  program
    .command('identify')
    .description('Identifies a part by its printed labels and other clues.')
    .option('--labels <row>', 'printed labels in order: "GND VCC D0 D1 RES DC CS"')
    .option('--pins <count>', 'number of pins')
    .option('--size <size>', 'size in inches or resolution: 0.96, 128x64')
    .option('--does <words>', 'function: temperature')
    .option('--chip <marking>', 'chip marking')
    .option('--json', 'candidates as JSON', false)
    .action((options: IdentifyOptions) => done(identify(io, sheets(), options)));
  program
    .command('sheets')
    .description('Counts the boards and parts in the library by family and trust.')
    .option('--json', 'counts and IDs as JSON', false)
    .option('--note <file>', 'validate every sheet and store the digests of the valid files')
    .action((options: { json: boolean; note?: string }) =>
      done(options.note ? noteChecked(catalogueFolder, options.note) : listSheets(io, sheets(), options.json)),
    );
  program
    .command('schemas')
    .description('Writes the JSON Schemas of sheets and plan files.')
    .argument('<folder>', 'output folder')
    .action((folder: string) => {
      io.write(`${folder}/plan.schema.json`, `${JSON.stringify(planJsonSchema(), null, 2)}\n`);
      for (const kind of ['board', 'part'] as const)
        io.write(`${folder}/${kind}-sheet.schema.json`, `${JSON.stringify(sheetJsonSchema(kind), null, 2)}\n`);
      done(EXIT.clean);
    });
  program
    .command('check-pages')
    .description('Writes the documentation pages of the checks.')
    .argument('<folder>', 'output folder')
    .action((folder: string) => done(checkPages(io, folder)));
  program
    .command('cli-page')
    .description('Writes this documentation page.')
    .argument('<file>', 'output file')
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
