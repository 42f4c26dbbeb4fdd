import { exportCommand, importCommand } from './commands/archive';
import { backupCommand } from './commands/backup';
import type { Command } from './commands/command';
import { restoreCommand } from './commands/restore';
import { serveCommand } from './commands/serve';
import { verifyCommand } from './commands/verify';
import { startFault } from './startFault';

const COMMANDS: readonly Command[] = [serveCommand, backupCommand, restoreCommand, verifyCommand, exportCommand, importCommand];

async function main(args: string[]): Promise<void> {
  const [first, ...rest] = args;
  if (first === '--help' || first === 'help') {
    for (const { usage, summary } of COMMANDS) console.log(`${usage}\n    ${summary}`);
    return;
  }
  const command = COMMANDS.find(({ name }) => name === first);
  if (!command && first !== undefined && !first.startsWith('-'))
    throw new RangeError(`unknown command ${first}: expected one of ${COMMANDS.map(({ name }) => name).join(', ')}.`);
  await (command ? command.run(rest) : serveCommand.run(args));
}

main(process.argv.slice(2)).catch((error: unknown) => {
  console.error(startFault(error));
  process.exit(1);
});
