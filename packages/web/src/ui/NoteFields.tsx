import { Textarea, TextInput } from '@mantine/core';

/** How something was found on the bench, and when. */
export interface Found {
  readonly words: string;
  /** As 2026-11-26. */
  readonly date: string;
}

/** Whether method and date are entered. */
export const isSound = ({ words, date }: Found): boolean => words.trim() !== '' && /^\d{4}-\d{2}-\d{2}$/.test(date);

interface NoteFieldsProps {
  readonly found: Found;
  readonly placeholder: string;
  /** The words are typed first. */
  readonly autofocus?: boolean;
  readonly onChange: (found: Found) => void;
}

/** The fields of a note: how it was found, and the day. */
export function NoteFields({ found, placeholder, autofocus, onChange }: NoteFieldsProps) {
  return (
    <>
      <Textarea
        label="Method"
        placeholder={placeholder}
        mt="sm"
        autosize
        minRows={2}
        maxLength={400}
        value={found.words}
        onChange={(event) => onChange({ ...found, words: event.currentTarget.value })}
        required
        {...(autofocus ? { 'data-autofocus': true } : {})}
      />
      <TextInput
        label="Date"
        type="date"
        mt="sm"
        value={found.date}
        onChange={(event) => onChange({ ...found, date: event.currentTarget.value })}
        required
      />
    </>
  );
}
