// All tests of the folders in ROOF_CHART_MUTATE as one file: what they share (the library, the checks) is loaded once for each mutant
// instead of once for each file.
const { readdirSync } = require('node:fs');
const { join, relative } = require('node:path');

const root = join(__dirname, '../..');
/** Sweeps over the library, and programs that tests start: too long for each mutant. */
const TOO_LONG = /review\/pairings|outputs\/fuzz|bench\/liveBench|start\/start|archive\/archive|cli\/src\/program/;

/** Searches that random plans go through: they run last, where neither worked values nor the corpus have noticed the mutant. */
const LATE = /property|words\.test|severity|addressTree|policeRemedies|ladder\.test|connectedComponents|incrementalSplit/;
const rank = (path) => (LATE.test(path) ? 2 : /corpus|refusals/.test(path) ? 1 : 0);

const testsIn = (folder) => {
  if (folder.endsWith('.ts')) return [folder];
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) return testsIn(path);
    return /\.test\.tsx?$/.test(entry.name) && !TOO_LONG.test(path) ? [path] : [];
  });
};

const paths = (process.env.ROOF_CHART_MUTATE ?? '').split(',').flatMap((folder) => (folder ? testsIn(join(root, folder)) : []));
for (const path of [...new Set(paths)].toSorted((a, b) => rank(a) - rank(b))) describe(relative(root, path), () => void require(path));
