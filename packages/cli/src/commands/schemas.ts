import { planJsonSchema } from '@roof-chart/core/plan/planJsonSchema';
import { sheetJsonSchema } from '@roof-chart/core/sheets/jsonSchema';
import type { RegisterCommand } from '../command';
import { EXIT } from '../io';

/** `schemas`: the JSON Schemas of sheets and plan files. */
export const registerSchemas: RegisterCommand = (program, { io, done }) => {
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
};
