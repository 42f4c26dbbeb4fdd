import { existsSync, readFileSync, statSync, writeFileSync, writeSync } from 'node:fs';
import { createInterface } from 'node:readline';
import writeFileAtomic from 'write-file-atomic';
import { InputFault, type Io } from './io';

const codeOf = (error: unknown): string => (error as NodeJS.ErrnoException).code ?? String(error);

const WHY: { readonly [code: string]: string } = {
  ENOSPC: 'the disk is full',
  EPIPE: 'the reading program has ended',
  EACCES: 'permission denied',
  EROFS: 'it is read-only',
  EISDIR: 'it is a folder',
  ENOENT: 'its folder does not exist',
  ENOTDIR: 'a part of its path is not a folder',
  EFBIG: 'the file would be too large',
};

const reason = (error: unknown): string => WHY[codeOf(error)] ?? codeOf(error);

/** A pipe whose reader is slow refuses a write for a moment. */
const pause = (): void => void Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, 5);

/** Writes a whole text to an open file, such as standard output.
 *  @throws InputFault when that fails: what cannot be written must not pass for done */
function writeAll(file: number, name: string, text: string): void {
  const bytes = Buffer.from(text);
  for (let at = 0; at < bytes.length;) {
    try {
      at += writeSync(file, bytes, at);
    } catch (error) {
      if (codeOf(error) !== 'EAGAIN') throw new InputFault(`${name} cannot be written: ${reason(error)}.`);
      pause();
    }
  }
}

/** Text of a file, or of standard input for `-`; a byte order mark is no part of it.
 *  @throws InputFault when the file cannot be read */
export function readText(path: string): string {
  try {
    return readFileSync(path === '-' ? 0 : path, 'utf8').replace(/^\uFEFF/, '');
  } catch (error) {
    throw new InputFault(`${path === '-' ? 'Standard input' : path} cannot be read: ${codeOf(error)}`);
  }
}

/** Writes a file atomically: to a temporary file next to it, which then replaces it. A device or a pipe is written directly.
 *  @throws InputFault if that fails; an existing file is then unchanged */
export function writeText(path: string, text: string): void {
  try {
    if (existsSync(path) && !statSync(path).isFile()) writeFileSync(path, text);
    else writeFileAtomic.sync(path, text);
  } catch (error) {
    throw new InputFault(`${path} cannot be written: ${reason(error)}. Nothing was changed.`);
  }
}

/** The process as commands see it. */
export const processIo: Io = {
  out: (text) => writeAll(1, 'Standard output', `${text}\n`),
  err: (text) => {
    try {
      writeAll(2, 'Standard error', `${text}\n`);
    } catch {
      // There is nowhere left to say it; the exit code does.
    }
  },
  read: readText,
  write: writeText,
  lines: () => createInterface({ input: process.stdin }),
};
