import { Button, Group, Modal } from '@mantine/core';
import { useState } from 'react';
import { placementText } from '@roof-chart/core/text/names';
import type { BuildWire } from '@roof-chart/core/outputs/buildList';
import { type Plan, splitKey } from '@roof-chart/core/plan/plan';
import { wireEndText } from '@roof-chart/core/text/wireEndText';
import { useWorkbench } from '../../state/workbench';
import { today } from '../../ui/factFields';
import { type Found, isSound, NoteFields } from '../../ui/NoteFields';

interface WireNoteFormProps {
  readonly plan: Plan;
  readonly wire: BuildWire;
  readonly onClose: () => void;
}

/** Records that a wire was found in place on the bench: how, and when. */
export function WireNoteForm({ plan, wire, onClose }: WireNoteFormProps) {
  const { sheets, edit } = useWorkbench();
  const [found, setFound] = useState<Found>({ words: wire.note?.words ?? '', date: wire.note?.date ?? today(new Date()) });
  const name = `${placementText(plan, wire.placement)} ${wire.label}`;
  const keep = (note: Found | null) => {
    const done = edit([{ kind: 'wire-note', ...splitKey(wire.key), note: note && { end: wire.end, ...note } }]);
    if (done) onClose();
  };
  return (
    <Modal opened onClose={onClose} title="Bench note" centered>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (isSound(found)) keep({ words: found.words.trim(), date: found.date });
        }}
      >
        <p>
          Confirm that <b>{name}</b> is connected to <b>{wireEndText(plan, sheets, wire.end)}</b>. The note expires when the wire is moved.
        </p>
        <NoteFields found={found} placeholder="Continuity measured from terminal to pin, power off" autofocus onChange={setFound} />
        <Group mt="md" justify="flex-end">
          {wire.note && (
            <Button variant="subtle" color="gray" c="var(--quiet)" onClick={() => keep(null)}>
              Remove
            </Button>
          )}
          <Button variant="default" onClick={onClose}>
            Cancel
          </Button>
          <Button type="submit" disabled={!isSound(found)}>
            Save note
          </Button>
        </Group>
      </form>
    </Modal>
  );
}
