// Runs a MicroPython program: the real interpreter, as WebAssembly. usage: node runMicroPython.mjs FILE
import { readFileSync } from 'node:fs';
import { loadMicroPython } from '@micropython/micropython-webassembly-pyscript/micropython.mjs';

const python = await loadMicroPython({ stdout: (line) => process.stdout.write(`${line}\n`), linebuffer: true });
python.runPython(readFileSync(process.argv[2], 'utf8'));
