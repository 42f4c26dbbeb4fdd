import { entryOrThrow } from '@roof-chart/core/collections/orThrow';
import { CALCULATIONS } from '@roof-chart/core/electrics/calculations/calculations';
import { readValues, outputText, outputWords } from '@roof-chart/core/electrics/calculations/calculation';
import type { CommandContext, RegisterCommand } from '../command';
import { EXIT, type ExitCode, InputFault } from '../io';

interface CalcOptions {
  readonly list: boolean;
  readonly json: boolean;
}

const IDS = CALCULATIONS.map((c) => c.id).join(', ');

/** `calc`: one calculation with its working, without a plan; `--list` lists calculations with their inputs. */
function calc({ io, catalogue }: CommandContext, id: string | undefined, given: readonly string[], { list, json }: CalcOptions): ExitCode {
  if (list || id === undefined) {
    const all = CALCULATIONS.map(({ run: _run, ...facts }) => facts);
    const line = (c: (typeof all)[number]) =>
      [
        `${c.id}: ${c.words}`,
        ...c.inputs.map((i) => `  ${i.name} (${i.unit}${i.default === undefined ? '' : `, ${i.default || 'none'}`}): ${i.words}`),
      ].join('\n');
    io.out(json ? JSON.stringify(all, null, 2) : all.map(line).join('\n'));
    return EXIT.clean;
  }
  const calculation = CALCULATIONS.find((c) => c.id === id);
  if (!calculation) throw new InputFault(`${id}: expected one of ${IDS}`);
  const bare = given.find((text) => !text.includes('='));
  if (bare !== undefined) throw new InputFault(`${bare}: expected name=value, as in hz=400k`);
  const values = Object.fromEntries(given.map((text) => [text.slice(0, text.indexOf('=')), text.slice(text.indexOf('=') + 1)]));
  try {
    const { outputs, working } = calculation.run(readValues(calculation, values), { sheets: catalogue.sheets });
    const lines = calculation.outputs.map(
      (output) =>
        `${output.name.padEnd(14)} ${outputText(entryOrThrow(outputs, output.name), output.unit).padStart(12)}  ${outputWords(output, entryOrThrow(outputs, output.name))}`,
    );
    const steps = working.map((step) => `${step.formula}: ${step.values}  [${step.source}]`);
    io.out(json ? JSON.stringify({ outputs, working }, null, 2) : [...lines, ...steps].join('\n'));
    return EXIT.clean;
  } catch (error) {
    if (error instanceof RangeError) throw new InputFault(`calc ${id}: ${error.message}`);
    throw error;
  }
}

export const registerCalc: RegisterCommand = (program, context) => {
  program
    .command('calc')
    .description('Runs one calculation and shows the working; no plan needed.')
    .argument('[calculation]', 'calculation; without it, all are listed')
    .argument('[inputs...]', 'name=value, with SI prefixes: hz=400k capacitance=86p')
    .option('--list', 'list calculations with inputs, units, defaults, outputs and source', false)
    .option('--json', 'as JSON', false)
    .action((id: string | undefined, given: string[], options: CalcOptions) => context.done(calc(context, id, given, options)));
};
