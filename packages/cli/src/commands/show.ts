import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { PLAN, type RegisterCommand } from '../command';
import { asJson } from '../deliver';
import { EXIT, type ExitCode, type Io } from '../io';
import { openPlanFile } from '../planFile';
import { planText } from '../planText';

/** `show`: the plan as text, or its document. */
function show(io: Io, shipped: Sheets, file: string, json: boolean): ExitCode {
  const { plan, sheets } = openPlanFile(io, shipped, file);
  io.out(json ? asJson(plan) : planText(plan, sheets));
  return EXIT.clean;
}

export const registerShow: RegisterCommand = (program, { io, catalogue, done }) => {
  program
    .command('show')
    .description('Prints a plan as text: parts, terminals and their connections.')
    .argument('<file>', PLAN)
    .option('--json', 'the plan document', false)
    .action((file: string, options: { json: boolean }) => done(show(io, catalogue.sheets(), file, options.json)));
};
