import { EXPORT_FORMATS } from '@roof-chart/core/outputs/exports';
import { PLAN, type CommandContext, type RegisterCommand } from '../command';
import { EXIT, type ExitCode, InputFault } from '../io';

interface ExportOptions {
  readonly out: string;
}

/** `export`: a plan as constants of a language, as a table or as data; without a format, which there are. */
function exportPlan({ io, open }: CommandContext, file: string | undefined, id: string | undefined, { out }: ExportOptions): ExitCode {
  if (file === undefined || id === undefined) {
    io.out(EXPORT_FORMATS.map((one) => `${one.id}: ${one.words} (${one.ending})`).join('\n'));
    return EXIT.clean;
  }
  const format = EXPORT_FORMATS.find((one) => one.id === id);
  if (!format) throw new InputFault(`${id}: expected one of ${EXPORT_FORMATS.map((one) => one.id).join(', ')}`);
  const { plan, sheets } = open(file);
  const text = format.write(plan, sheets);
  if (text === undefined) throw new InputFault(`${file}: ${format.words}: not available for this board`);
  if (out === '-') io.out(text.replace(/\r?\n$/, ''));
  else io.write(out, text);
  return EXIT.clean;
}

export const registerExport: RegisterCommand = (program, context) => {
  program
    .command('export')
    .description('Exports constants for a program, a wire list or data; without a format, lists the formats.')
    .argument('[file]', PLAN)
    .argument('[format]', 'cpp, c, micropython, rust, overlay, json, yaml, toml, csv, components, svg, markdown')
    .option('--out <file>', 'output file', '-')
    .action((file: string | undefined, format: string | undefined, options: ExportOptions) =>
      context.done(exportPlan(context, file, format, options)),
    );
};
