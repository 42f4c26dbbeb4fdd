// The programs for boards are files of their own: formats them, or with --check says which are not formatted.
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { format as formatCpp } from '@wasm-fmt/clang-format';
import { format as formatPython } from '@wasm-fmt/ruff_fmt';
import { root } from './steps.mjs';

const CPP_STYLE = JSON.stringify({ BasedOnStyle: 'Google', ColumnLimit: 110, IndentWidth: 2 });
const FORMATS = {
  py: (text, path) => formatPython(text, path, { line_width: 110 }),
  cpp: (text, path) => formatCpp(text, path, CPP_STYLE),
};

const isOurs = (path) => /\.(py|cpp)$/.test(path) && !/(^|[/\\])(node_modules|dist)[/\\]/.test(path);
const wrong = readdirSync(join(root, 'packages'), { recursive: true })
  .filter(isOurs)
  .map((path) => join('packages', path))
  .filter((path) => {
    const text = readFileSync(join(root, path), 'utf8');
    const formatted = FORMATS[path.split('.').at(-1)](text, path);
    if (text !== formatted && !process.argv.includes('--check')) writeFileSync(join(root, path), formatted);
    return text !== formatted;
  });
if (process.argv.includes('--check') && wrong.length > 0) {
  console.error(`Not formatted: ${wrong.join(', ')}. Run npm run format.`);
  process.exitCode = 1;
}
