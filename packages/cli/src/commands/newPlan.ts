import { startPlan } from '@roof-chart/core/plan/startPlan';
import { idSchema, nameSchema } from '@roof-chart/core/plan/planSchema';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import type { RegisterCommand } from '../command';
import { deliver, nearest } from '../deliver';
import { type ExitCode, InputFault, type Io } from '../io';

/** `new`: an empty plan on a board. */
function create(
  io: Io,
  sheets: Sheets,
  boardId: string,
  options: { readonly name: string; readonly id: string; readonly out: string },
): ExitCode {
  const board = sheets.boards.get(boardId)?.sheet;
  if (!board) throw new InputFault(`unknown board ${boardId}: expected one of ${nearest(sheets.boards.keys())}`);
  for (const [what, schema, value] of [
    ['--name', nameSchema, options.name],
    ['--id', idSchema, options.id],
  ] as const) {
    const { error } = schema.validate(value, { convert: false });
    if (error) throw new InputFault(`${what}: ${error.message}`);
  }
  return deliver(io, startPlan(options.id, options.name, board.id, sheets), { file: options.out });
}

export const registerNew: RegisterCommand = (program, { io, catalogue, done }) => {
  program
    .command('new')
    .description('Creates an empty plan for a board.')
    .argument('<board>', 'ID of the board sheet')
    .option('--name <name>', 'name of the plan', 'New plan')
    .option('--id <id>', 'ID of the plan', 'plan')
    .option('--out <file>', 'file for the plan', '-')
    .action((board: string, options: { name: string; id: string; out: string }) => done(create(io, catalogue.sheets(), board, options)));
};
