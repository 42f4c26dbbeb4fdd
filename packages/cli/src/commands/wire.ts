import type { Edit } from '@roof-chart/core/plan/edit';
import type { WireEnd } from '@roof-chart/core/plan/plan';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { OUT, PLAN, type RegisterCommand } from '../command';
import { applied, deliver, type Target } from '../deliver';
import type { ExitCode, Io } from '../io';
import { openPlanFile } from '../planFile';
import { terminalAt } from '../terminalAt';

/** "GP4", "rail:3v3", "ground" or "part:terminal". */
function endOf(text: string): WireEnd {
  if (text === 'ground') return { to: 'ground' };
  if (text.startsWith('rail:')) return { to: 'rail', rail: text.slice(5) };
  return text.includes(':') ? { to: 'terminal', ...terminalAt(text) } : { to: 'pin', pin: text };
}

/** `wire`: one terminal to an end, or `open` to unwire it. */
function wire(io: Io, shipped: Sheets, file: string, from: string, to: string, options: Target): ExitCode {
  const place = terminalAt(from);
  const change: Edit = to === 'open' ? { kind: 'unwire', ...place } : { kind: 'wire', ...place, end: endOf(to) };
  const { plan, sheets, carried } = openPlanFile(io, shipped, file);
  return deliver(io, applied(plan, [change], sheets), file, options, carried);
}

export const registerWire: RegisterCommand = (program, { io, catalogue, done }) => {
  program
    .command('wire')
    .description('Connects a terminal to a pin, a rail, ground or another terminal, or disconnects it.')
    .argument('<file>', PLAN)
    .argument('<terminal>', 'part:terminal')
    .argument('<end>', 'GP4, rail:3v3, ground, part:terminal, or open')
    .option('--out <file>', OUT)
    .action((file: string, from: string, to: string, options: { out?: string }) =>
      done(wire(io, catalogue.sheets(), file, from, to, options)),
    );
};
