import { planChanges } from '@roof-chart/core/text/planChanges';
import { diffPlans } from '@roof-chart/core/plan/diffPlans';
import { defaultStrap } from '@roof-chart/core/sheets/defaultStrap';
import { PLAN, type CommandContext, type RegisterCommand } from '../command';
import { asJson } from '../deliver';
import { EXIT, type ExitCode, InputFault } from '../io';

/** `diff`: what differs, or with JSON the edits that lead from the first to the second. Exit code 1 where anything does. */
function diff({ io, open }: CommandContext, from: string, to: string, json: boolean): ExitCode {
  if (from === '-' && to === '-') throw new InputFault('only one of the plans can come from standard input');
  const { plan: a } = open(from);
  const { plan: b, sheets } = open(to);
  if (a.board.id !== b.board.id) throw new InputFault(`the plans use different boards: ${a.board.id} and ${b.board.id}`);
  const edits = diffPlans(a, b, (part, strap) => defaultStrap(sheets, part, strap));
  const lines = planChanges(a, b, sheets);
  const words =
    lines.length > 0 ? lines.join('\n') : `${edits.length} changes of colours, names, jumpers, locks or ticks (--json lists them)`;
  io.out(json ? asJson(edits) : edits.length === 0 ? 'No differences.' : words);
  return edits.length === 0 ? EXIT.clean : EXIT.clashes;
}

export const registerDiff: RegisterCommand = (program, context) => {
  program
    .command('diff')
    .description('Shows the differences between two plans for the same board.')
    .argument('<from>', PLAN)
    .argument('<to>', PLAN)
    .option('--json', 'the edits that turn the first into the second', false)
    .action((from: string, to: string, options: { json: boolean }) => context.done(diff(context, from, to, options.json)));
};
