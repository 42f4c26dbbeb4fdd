import { orThrow } from '@roof-chart/core/collections/orThrow';
import { planChanges } from '@roof-chart/core/text/planChanges';
import { counted } from '@roof-chart/core/quantity/format';
import { buildInstance } from '@roof-chart/core/assign/model/buildInstance';
import { alternativesOf, conflictOf } from '@roof-chart/core/assign/explain';
import { assignPins as settled } from '@roof-chart/core/assign/assignPins';
import { waysOut } from '@roof-chart/core/review/ways/waysOut';
import { preferenceCosts } from '@roof-chart/core/assign/preferenceCost';
import { terminalText } from '@roof-chart/core/text/names';
import { alternativeText, conflictText, proofText, wayCosts, wayText, wishText } from '@roof-chart/core/text/assignmentText';
import { solve } from '@roof-chart/core/assign/solve/solve';
import { boardOrThrow } from '@roof-chart/core/plan/edit';
import { notedSheets } from '@roof-chart/core/sheets/notedSheets';
import { PLAN, type CommandContext, type RegisterCommand } from '../command';
import { EXIT, type ExitCode, InputFault } from '../io';
import { deliver } from '../deliver';

interface SettleOptions {
  readonly out?: string;
  readonly json: boolean;
  readonly instance: boolean;
  readonly seconds: string;
}

function limitOf(seconds: string, now: () => number): () => boolean {
  const limit = Number(seconds);
  if (seconds.trim() === '' || !Number.isFinite(limit) || limit < 0)
    throw new InputFault(`--seconds ${seconds}: expected a number of seconds, 0 or more`);
  const end = now() + limit * 1000;
  return () => now() >= end;
}

/** `assign`: assigns all pins optimally. Exit code 0 if everything is connected, 1 otherwise. */
function settle({ io, open }: CommandContext, file: string, options: SettleOptions, now: () => number): ExitCode {
  const opened = open(file);
  const { plan, sheets: kept } = opened;
  const sheets = notedSheets(kept, plan.benchNotes);
  const stop = limitOf(options.seconds, now);
  if (options.instance) {
    io.out(JSON.stringify(buildInstance(plan, sheets, boardOrThrow(plan, sheets)), null, 2));
    return EXIT.clean;
  }
  const result = orThrow(settled(plan, sheets, { stop }), 'board sheet');
  const conflict = result.costs.unwired > 0 ? conflictOf(result.instance, { stop }) : undefined;
  if (options.json) {
    const { edits, costs, bound, proved, nodes, open } = result;
    const wishes = preferenceCosts(plan, result.plan, sheets, { stop });
    io.out(JSON.stringify({ edits, costs, bound, proved, nodes, open, wishes, ...(conflict ? { conflict } : {}) }, null, 2));
  } else {
    io.out(
      [
        ...planChanges(plan, result.plan, sheets),
        proofText(result),
        ...(conflict ? [conflictText(plan, sheets, conflict)] : []),
        ...preferenceCosts(plan, result.plan, sheets, { stop }).map((price) => wishText(plan, sheets, price)),
      ].join('\n'),
    );
  }
  if (options.out !== undefined) deliver(io, result.plan, opened, { out: options.out });
  return result.costs.unwired > 0 ? EXIT.clashes : EXIT.clean;
}

/** `explain`: why a terminal is on its pin; without one, which terminals compete. */
function explain({ io, open }: CommandContext, file: string, terminal: string | undefined, json: boolean): ExitCode {
  const { plan, sheets: kept } = open(file);
  const sheets = notedSheets(kept, plan.benchNotes);
  const limit = { nodes: 20_000 };
  if (terminal === undefined) {
    const instance = buildInstance(plan, sheets, boardOrThrow(plan, sheets));
    const conflict = conflictOf(instance, limit);
    const ways = conflict ? waysOut(plan, sheets, limit) : [];
    const open = conflict ? 0 : solve(instance, limit).costs.unwired;
    if (json) {
      const short = ways.map(({ plan: _plan, ...way }) => ({ ...way, words: wayText(plan, sheets, { ...way, plan: _plan }) }));
      io.out(JSON.stringify({ conflict: conflict ?? null, ways: short }, null, 2));
    } else
      io.out(
        conflict
          ? [conflictText(plan, sheets, conflict), ...ways.map((way) => `  ${wayText(plan, sheets, way)}: ${wayCosts(way)}`)].join('\n')
          : open > 0
            ? `Not proved: the best solution found leaves ${counted(open, 'terminal')} unconnected.`
            : 'All terminals of this plan can be connected.',
      );
    return conflict ? EXIT.clashes : EXIT.clean;
  }
  const alternatives = alternativesOf(plan, sheets, terminal, limit);
  if (!alternatives) throw new InputFault(`${terminal}: expected part:terminal of a connected signal in this plan`);
  const board = boardOrThrow(plan, sheets);
  const lines = alternatives.map((one) => `  ${(board.pins.get(one.pin)?.label ?? one.pin).padEnd(6)} ${alternativeText(one)}`);
  io.out(
    json
      ? JSON.stringify({ terminal, alternatives }, null, 2)
      : [`${terminalText(plan, sheets, terminal)} other pins:`, ...lines].join('\n'),
  );
  return EXIT.clean;
}

export const registerAssign: RegisterCommand = (program, context) => {
  program
    .command('assign')
    .description('Assigns pins optimally and states what is proved; existing wires move only where necessary.')
    .argument('<file>', PLAN)
    .option('--out <file>', 'file for the plan with assigned pins (- for standard output); without it nothing is written')
    .option('--seconds <n>', 'time limit; the best solution found is returned with its bound', '10')
    .option('--instance', 'the problem as JSON, for any other solver', false)
    .option('--json', 'edits, costs and proof as JSON', false)
    .action((file: string, options: SettleOptions) => context.done(settle(context, file, options, () => performance.now())));
};

export const registerExplain: RegisterCommand = (program, context) => {
  program
    .command('explain')
    .description(
      'Explains why a terminal is on its pin and what every other pin would cost; without a terminal, lists terminals that compete.',
    )
    .argument('<file>', PLAN)
    .argument('[terminal]', 'part:terminal')
    .option('--json', 'as JSON', false)
    .action((file: string, terminal: string | undefined, options: { json: boolean }) =>
      context.done(explain(context, file, terminal, options.json)),
    );
};
