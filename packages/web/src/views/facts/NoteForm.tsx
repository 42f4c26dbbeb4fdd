import { Button, Group, Modal, SegmentedControl, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { BenchNote } from '@roof-chart/core/sheets/benchNote';
import type { FactValue } from '@roof-chart/core/sheets/factPath';
import { readValue, today, valueText } from './factFields';
import { type Found, isSound, NoteFields } from './NoteFields';

interface NoteFormProps {
  readonly fact: string;
  /** What the sheet says. Undefined for a group, which can be confirmed only as it stands. */
  readonly sheetValue: FactValue | undefined;
  readonly note: BenchNote | undefined;
  readonly onClose: () => void;
  /** @returns whether the note could be taken */
  readonly onKeep: (note: Omit<BenchNote, 'sheet' | 'fact'>) => boolean;
}

/** What the bench says about one fact: that it is as the sheet has it, or another value; in words, with the day. */
export function NoteForm({ fact, sheetValue, note, onClose, onKeep }: NoteFormProps) {
  const [kind, setKind] = useState<'same' | 'other'>(
    sheetValue !== undefined && (note ? note.value !== undefined : true) ? 'other' : 'same',
  );
  const [typed, setTyped] = useState(
    note?.value !== undefined ? valueText(note.value, fact) : sheetValue === undefined ? '' : valueText(sheetValue, fact),
  );
  const [found, setFound] = useState<Found>({ words: note?.words ?? '', date: note?.date ?? today(new Date()) });
  const value = kind === 'other' && sheetValue !== undefined ? readValue(sheetValue, typed) : undefined;
  const sound = value !== null && isSound(found);
  const keep = () => {
    if (sound && onKeep({ ...(value === undefined || value === null ? {} : { value }), words: found.words.trim(), date: found.date }))
      onClose();
  };
  return (
    <Modal opened onClose={onClose} title="Bench note" centered>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          keep();
        }}
      >
        <p>
          <span className="mono">{fact}</span>
          {sheetValue !== undefined && (
            <>
              {' '}
              is <b>{valueText(sheetValue, fact)}</b> in the sheet.
            </>
          )}
        </p>
        {sheetValue !== undefined && (
          <SegmentedControl
            fullWidth
            aria-label="What the bench says"
            value={kind}
            onChange={(next) => setKind(next as 'same' | 'other')}
            data={[
              { value: 'other', label: 'It is another value' },
              { value: 'same', label: 'It is as the sheet says' },
            ]}
          />
        )}
        {kind === 'other' && (
          <TextInput
            label="Value found"
            mt="sm"
            value={typed}
            onChange={(event) => setTyped(event.currentTarget.value)}
            error={
              value === null
                ? `Expected ${typeof sheetValue === 'number' ? 'a number' : typeof sheetValue === 'boolean' ? '“yes” or “no”' : 'a text'}`
                : undefined
            }
            data-autofocus
          />
        )}
        <NoteFields found={found} placeholder="Measured between VCC and SDA, module unpowered" onChange={setFound} />
        <Group mt="md" justify="flex-end">
          <Button variant="default" onClick={onClose}>
            Cancel
          </Button>
          <Button type="submit" disabled={!sound}>
            Keep the note
          </Button>
        </Group>
      </form>
    </Modal>
  );
}
