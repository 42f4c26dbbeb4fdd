import type { Command } from 'commander';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import type { Io } from './io';
import type { OpenPlan } from './planFile';

/** The library, loaded on demand. */
export interface Catalogue {
  readonly folder: string;
  sheets(this: void): Sheets;
}

/** What a command works with; its exit code goes to `done`. */
export interface CommandContext {
  readonly io: Io;
  readonly catalogue: Catalogue;
  /** A plan from a file, with the sheets of the library and its own.
   *  @throws InputFault with the first place that is no plan */
  readonly open: (file: string) => OpenPlan;
  readonly done: (code: number) => void;
}

/** Adds a command to the program: its name, arguments, options and what it does. */
export type RegisterCommand = (program: Command, context: CommandContext) => void;

/** Help texts of arguments and options that many commands have. */
export const PLAN = 'plan file, or - for standard input';
export const OUT = 'file for the changed plan (default: overwrite the input; - for standard output)';
