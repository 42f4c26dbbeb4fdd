import { matchWires, type MatchedWire, readWireList } from '@roof-chart/core/outputs/wireList';
import { applyEdits } from '@roof-chart/core/plan/applyEdits';
import { planDocument } from '@roof-chart/core/plan/planFile';
import { OUT, PLAN, type CommandContext, type RegisterCommand } from '../command';
import { EXIT, type ExitCode, InputFault } from '../io';

interface ImportOptions {
  readonly out?: string;
}

function verdict({ there, edit, terminals }: MatchedWire): string {
  if (there) return 'already connected';
  if (edit) return 'taken';
  if (terminals.length > 1) return `ambiguous: ${terminals.join(', ')}`;
  return terminals.length === 0 ? 'no such terminal' : 'no such pin, rail or terminal';
}

/** `import`: a list of wires taken into a plan as far as it is clear. Exit code 1 where something of it is not. */
function importWires({ io, open }: CommandContext, file: string, list: string, { out }: ImportOptions): ExitCode {
  const { plan, sheets, carried } = open(file);
  const matches = matchWires(plan, sheets, readWireList(io.read(list)));
  if (matches.length === 0) throw new InputFault(`${list}: no wires found; expected lines such as "OLED SDA -> GP4", or a table`);
  const edits = matches.flatMap((match) => match.edit ?? []);
  const result = applyEdits(plan, edits, sheets);
  if (!result.ok) throw new InputFault(`${list}: ${result.problem.path}: expected ${result.problem.expected}, got ${result.problem.got}`);
  const said = matches.map((match) => `${match.listed.line}: ${match.listed.from} -> ${match.listed.to}: ${verdict(match)}`).join('\n');
  if (out === '-') io.err(said);
  else io.out(said);
  const document = carried.length > 0 ? planDocument(result.plan, sheets) : result.plan;
  const text = JSON.stringify(document, null, 2);
  if (out === '-') io.out(text);
  else io.write(out ?? file, `${text}\n`);
  return matches.every((match) => match.there || match.edit) ? EXIT.clean : EXIT.clashes;
}

export const registerImport: RegisterCommand = (program, context) => {
  program
    .command('import')
    .description('Imports a wire list into a plan: CSV, tab-separated, a Markdown table, or lines such as "OLED SDA -> GP4".')
    .argument('<file>', PLAN)
    .argument('<list>', 'the list, or - for standard input')
    .option('--out <file>', OUT)
    .action((file: string, list: string, options: ImportOptions) => context.done(importWires(context, file, list, options)));
};
