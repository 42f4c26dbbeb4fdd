import { beforeFirst } from '../collections/orThrow';
import type { BoardSheet } from './boardSheet';
import { type FactValue, withFact } from './factPath';
import type { PartSheet } from './partSheet';
import type { Source } from './source';

/** A fact measured, corrected or confirmed by the user, in one plan. */
export interface BenchNote {
  /** Id of the sheet: the fact changes for every part of the plan that this sheet describes. */
  readonly sheet: string;
  /** Name of the fact (`electrical/pullUpOhms/max`), or of a group that is confirmed as a whole. */
  readonly fact: string;
  /** Absent where the sheet's own value was found to be right. */
  readonly value?: FactValue;
  readonly words: string;
  /** The day, as 2026-11-25. */
  readonly date: string;
}

/** The notes of a plan, by `sheet:fact`. */
export type BenchNotes = { readonly [key: string]: BenchNote };

/** The key of a bench note in a plan. @example noteKey('oled-096', 'supply/volts/max') // 'oled-096:supply/volts/max' */
export const noteKey = (sheet: string, fact: string): string => `${sheet}:${fact}`;

type Sheet = BoardSheet | PartSheet;

/** The notes about one sheet, in the order of their facts. */
export function notesOn(notes: BenchNotes, sheet: string): readonly BenchNote[] {
  return Object.values(notes)
    .filter((note) => note.sheet === sheet)
    .sort((a, b) => (a.fact < b.fact ? -1 : 1));
}

/** Whether a note covers a fact: it is about that very fact, or about the group it is in. */
export function covers(note: BenchNote, fact: string): boolean {
  return fact === note.fact || fact.startsWith(`${note.fact}/`);
}

/** The group with the source of a fact. */
export const groupOf = (fact: string): string => beforeFirst(fact, '/');

/** The sheet as measured: values replaced, sources left as they are. A note whose fact is gone changes nothing. */
export function overlaid<T extends Sheet>(sheet: T, notes: readonly BenchNote[]): T {
  return notes.reduce((now, note) => (note.value === undefined ? now : (withFact(now, note.fact, note.value) ?? now)), sheet);
}

/** The sheet as measured, with each group's source naming the notes about it: wherever a fact's source is shown, so is its note. */
export function noted<T extends Sheet>(sheet: T, notes: readonly BenchNote[]): T {
  const measured = overlaid(sheet, notes);
  const groups = [...new Set(notes.map((note) => groupOf(note.fact)))];
  const marks = groups.flatMap((group) => {
    const facts = (measured as { readonly [name: string]: unknown } & T)[group] as { readonly source?: Source } | undefined;
    const own = notes.filter((note) => groupOf(note.fact) === group);
    return facts?.source ? [[group, { ...facts, source: { ...facts.source, benchNotes: own } }] as const] : [];
  });
  return { ...measured, ...Object.fromEntries(marks) };
}
