import { join } from 'node:path';
import { CHECKS } from '@roof-chart/core/checks/engine/registry';
import { checkIndex, checkPage } from '@roof-chart/core/outputs/checkPage';
import type { RegisterCommand } from '../command';
import { EXIT, type ExitCode, type Io } from '../io';

/** Writes the documentation page of every check into a folder. */
function checkPages(io: Io, folder: string): ExitCode {
  for (const check of CHECKS) io.write(join(folder, `${check.code}.md`), checkPage(check));
  io.write(join(folder, 'README.md'), checkIndex(CHECKS));
  io.out(`${CHECKS.length} pages in ${folder}`);
  return EXIT.clean;
}

export const registerCheckPages: RegisterCommand = (program, { io, done }) => {
  program
    .command('check-pages')
    .description('Writes the documentation pages of the checks.')
    .argument('<folder>', 'output folder')
    .action((folder: string) => done(checkPages(io, folder)));
};
