/** Exit codes of every command. */
export const EXIT = { clean: 0, clashes: 1, badInput: 2 } as const;
export type ExitCode = (typeof EXIT)[keyof typeof EXIT];

/** Where a command reads and writes: the process, or a test. */
export interface Io {
  out(text: string): void;
  err(text: string): void;
  /** Text of a file, or of standard input for `-`. */
  read(path: string): string;
  write(path: string, text: string): void;
  /** Lines of standard input as they come. */
  lines(): AsyncIterable<string>;
}

/** Bad input, as one plain sentence with its place. The command ends with exit code 2. */
export class InputFault extends Error {}
