// All tests of the folders in ROOF_CHART_MUTATE as one file: what they share (the library, the checks) is loaded once for each mutant
// instead of once for each file.
const { readdirSync } = require('node:fs');
const { join, relative } = require('node:path');

const root = join(__dirname, '../..');
/** Sweeps over the library, and programs that tests start: too long for each mutant. */
const TOO_LONG = /review\/pairings|outputs\/fuzz|bench\/liveBench|start\/start|archive\/archive|cli\/src\/program/;

/** Searches that random plans go through: they run last, where no worked value has noticed the mutant. */
const LATE = /property|words\.test|severity|addressTree|policeRemedies|ladder|islands|grownApart/;

const testsIn = (folder) =>
  readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) return testsIn(path);
    return /\.test\.tsx?$/.test(entry.name) && !TOO_LONG.test(path) ? [path] : [];
  });

const paths = (process.env.ROOF_CHART_MUTATE ?? '').split(',').flatMap((folder) => (folder ? testsIn(join(root, folder)) : []));
for (const path of paths.toSorted((a, b) => LATE.test(a) - LATE.test(b))) describe(relative(root, path), () => void require(path));
