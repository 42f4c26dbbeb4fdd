import type { Edit } from '@roof-chart/core/plan/edit';
import type { WireEnd } from '@roof-chart/core/plan/plan';
import { OUT, PLAN, type CommandContext, type RegisterCommand } from '../command';
import { applied, deliver, type Target } from '../deliver';
import type { ExitCode } from '../io';
import { terminalAt } from '../terminalAt';

/** "GP4", "rail:3v3", "ground" or "part:terminal". */
function endOf(text: string): WireEnd {
  if (text === 'ground') return { to: 'ground' };
  if (text.startsWith('rail:')) return { to: 'rail', rail: text.slice(5) };
  return text.includes(':') ? { to: 'terminal', ...terminalAt(text) } : { to: 'pin', pin: text };
}

/** `wire`: one terminal to an end, or `open` to unwire it. */
function wire({ io, open }: CommandContext, file: string, [from, to]: readonly [from: string, to: string], options: Target): ExitCode {
  const place = terminalAt(from);
  const change: Edit = to === 'open' ? { kind: 'unwire', ...place } : { kind: 'wire', ...place, end: endOf(to) };
  const opened = open(file);
  return deliver(io, applied(opened.plan, [change], opened.sheets), opened, options);
}

export const registerWire: RegisterCommand = (program, context) => {
  program
    .command('wire')
    .description('Connects a terminal to a pin, a rail, ground or another terminal, or disconnects it.')
    .argument('<file>', PLAN)
    .argument('<terminal>', 'part:terminal')
    .argument('<end>', 'GP4, rail:3v3, ground, part:terminal, or open')
    .option('--out <file>', OUT)
    .action((file: string, from: string, to: string, options: { out?: string }) => context.done(wire(context, file, [from, to], options)));
};
