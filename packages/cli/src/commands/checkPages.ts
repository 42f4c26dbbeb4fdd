import { join } from 'node:path';
import { CHECKS } from '@roof-chart/core/checks/engine/registry';
import { checkIndex, checkPage } from '@roof-chart/core/outputs/checkPage';
import { EXIT, type ExitCode, type Io } from '../io';

/** Writes the documentation page of every check into a folder. */
export function checkPages(io: Io, folder: string): ExitCode {
  for (const check of CHECKS) io.write(join(folder, `${check.code}.md`), checkPage(check));
  io.write(join(folder, 'README.md'), checkIndex(CHECKS));
  io.out(`${CHECKS.length} pages in ${folder}`);
  return EXIT.clean;
}
