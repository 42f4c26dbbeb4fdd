import { Button, Group, Modal, SegmentedControl, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { BenchNote } from '@roof-chart/core/sheets/benchNote';
import type { FactValue } from '@roof-chart/core/sheets/factPath';
import { readValue, today, valueText } from '../../ui/factFields';
import { type Found, isSound, NoteFields } from '../../ui/NoteFields';

interface NoteFormProps {
  readonly fact: string;
  /** The fact's name in words. */
  readonly title: string;
  /** The sheet value. Undefined for a group, which can only be confirmed. */
  readonly sheetValue: FactValue | undefined;
  readonly note: BenchNote | undefined;
  readonly onClose: () => void;
  /** @returns whether the note could be taken */
  readonly onKeep: (note: Omit<BenchNote, 'sheet' | 'fact'>) => boolean;
}

interface MeasuredFieldProps {
  readonly sheetValue: FactValue | undefined;
  readonly typed: string;
  readonly isBad: boolean;
  readonly onType: (text: string) => void;
}

function MeasuredField({ sheetValue, typed, isBad, onType }: MeasuredFieldProps) {
  const expected = typeof sheetValue === 'number' ? 'a number' : typeof sheetValue === 'boolean' ? '“yes” or “no”' : 'text';
  return (
    <TextInput
      label="Measured value"
      mt="sm"
      value={typed}
      onChange={(event) => onType(event.currentTarget.value)}
      error={isBad ? `Expected ${expected}` : undefined}
      data-autofocus
    />
  );
}

/** A bench note on one fact: the sheet value confirmed, or a different value; with method and date. */
export function NoteForm({ fact, title, sheetValue, note, onClose, onKeep }: NoteFormProps) {
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
          <b>{title}</b>
          {sheetValue !== undefined && <> (sheet value: {valueText(sheetValue, fact)})</>}
        </p>
        {sheetValue !== undefined && (
          <SegmentedControl
            fullWidth
            aria-label="Result on the bench"
            value={kind}
            onChange={(next) => setKind(next as 'same' | 'other')}
            data={[
              { value: 'other', label: 'Different value' },
              { value: 'same', label: 'Sheet value confirmed' },
            ]}
          />
        )}
        {kind === 'other' && <MeasuredField sheetValue={sheetValue} typed={typed} isBad={value === null} onType={setTyped} />}
        <NoteFields found={found} placeholder="Measured between VCC and SDA, module unpowered" onChange={setFound} />
        <Group mt="md" justify="flex-end">
          <Button variant="default" onClick={onClose}>
            Cancel
          </Button>
          <Button type="submit" disabled={!sound}>
            Save note
          </Button>
        </Group>
      </form>
    </Modal>
  );
}
