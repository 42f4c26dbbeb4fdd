import type { Command } from 'commander';
import type { RegisterCommand } from '../command';
import { EXIT } from '../io';

const row = (cells: readonly string[]): string => `| ${cells.join(' | ')} |`;
const safe = (text: string): string => text.replaceAll('|', '\\|').replaceAll('<', '&lt;');

function section(command: Command): string {
  const usage = `npm run -s cli -- ${command.name()} ${command.usage()}`;
  const args = command.registeredArguments.map((a) => row([`\`${a.name()}\``, safe(a.description)]));
  const options = command.options.map((o) => row([`\`${o.flags}\``, safe(o.description)]));
  const rows = [...args, ...options];
  return [
    `## ${command.name()}`,
    '',
    command.description(),
    '',
    '```sh',
    usage,
    '```',
    ...(rows.length > 0 ? ['', '| | |', '|---|---|', ...rows] : []),
  ].join('\n');
}

/** The documentation of the command line as Markdown, made from the commands themselves. */
function cliPage(program: Command): string {
  const intro = [
    '# Command line',
    '',
    'Generated from the commands: `npm run docs:cli`.',
    '',
    'Works on plan files or standard input (`-`). Exit code 0: no errors; 1: errors found, or a difference; 2: invalid input, with one sentence on standard error. Files are never half written.',
    'Wire ends are written `GP4` (a pin), `rail:3v3`, `ground`, `part:terminal`, or `open`.',
  ].join('\n');
  return `${[intro, ...program.commands.map(section)].join('\n\n')}\n`;
}

export const registerCliPage: RegisterCommand = (program, { io, done }) => {
  program
    .command('cli-page')
    .description('Writes this documentation page.')
    .argument('<file>', 'output file')
    .action((file: string) => {
      io.write(file, cliPage(program));
      done(EXIT.clean);
    });
};
