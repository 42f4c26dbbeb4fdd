import { Button, NumberInput, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { Candidate, Clues, Identification } from '@roof-chart/core/identify/identify';
import { readLabels } from '@roof-chart/core/identify/labelForms';
import { evidenceText } from '@roof-chart/core/text/evidenceText';
import type { Plan } from '@roof-chart/core/plan/plan';
import type { PartSheet } from '@roof-chart/core/sheets/partSheet';
import { useReading } from '../../ui/useReading';
import { ReadingState } from '../../ui/ReadingState';
import { Found } from './Found';
import styles from './Stock.module.css';
import { useAdditions } from './useAdditions';

interface Read {
  readonly labels: string;
  readonly pins: number | '';
  readonly size: string;
  readonly does: string;
  readonly chip: string;
}

/** Candidates shown. */
const MOST = 6;
const NOBODY: Identification = { candidates: [], settle: [] };
const EMPTY: Read = { labels: '', pins: '', size: '', does: '', chip: '' };

function cluesOf(read: Read): Clues {
  const labels = readLabels(read.labels);
  return {
    ...(labels.length > 0 ? { labels } : {}),
    ...(read.pins === '' ? {} : { pins: read.pins }),
    ...(read.size.trim() ? { size: read.size.trim() } : {}),
    ...(read.does.trim() ? { does: read.does.trim() } : {}),
    ...(read.chip.trim() ? { chip: read.chip.trim() } : {}),
  };
}

/** The terminals that labels were read of, also those that were misread or have another name in the trade. */
const readTerminals = ({ speaksFor }: Candidate): readonly string[] =>
  speaksFor.flatMap((evidence) => (evidence.is === 'labels' ? evidence.matched.map(({ id }) => id) : []));

function Evidence({ candidate }: { readonly candidate: Candidate }) {
  const { speaksFor, speaksAgainst, part } = candidate;
  return (
    <span className={styles.evidence}>
      <span>
        <b>For:</b> {speaksFor.map(evidenceText).join('; ') || 'little'}
      </span>
      {speaksAgainst.length > 0 && (
        <span>
          <b>Against:</b> {speaksAgainst.map(evidenceText).join('; ')}
        </span>
      )}
      {part.twins.map((twin) => (
        <span key={twin.what}>
          <b>Easily mistaken for:</b> {twin.what}. {twin.tell}
        </span>
      ))}
    </span>
  );
}

interface IdentifyProps {
  readonly plan: Plan;
  readonly parts: readonly PartSheet[];
  readonly onClose: () => void;
}

/** What is printed on the part, and what else is known of it. */
function ClueFields({ read, onRead }: { readonly read: Read; readonly onRead: (read: Read) => void }) {
  const text = (field: 'size' | 'does' | 'chip', label: string, placeholder: string) => (
    <TextInput
      label={label}
      placeholder={placeholder}
      value={read[field]}
      maxLength={60}
      onChange={(event) => onRead({ ...read, [field]: event.currentTarget.value })}
    />
  );
  return (
    <>
      <TextInput
        data-autofocus
        label="Printed labels, in order"
        description="Start at either end. Labels you cannot read may be left out."
        placeholder="GND VCC D0 D1 RES DC CS"
        value={read.labels}
        maxLength={400}
        classNames={{ input: 'mono' }}
        onChange={(event) => onRead({ ...read, labels: event.currentTarget.value })}
      />
      <div className={styles.clues}>
        <NumberInput
          size="xs"
          label="Number of pins"
          placeholder="7"
          min={1}
          max={400}
          allowDecimal={false}
          value={read.pins}
          onChange={(value) => onRead({ ...read, pins: typeof value === 'number' ? value : '' })}
        />
        {text('size', 'Size or resolution', '0.96 or 128x64')}
        {text('does', 'Function', 'humidity')}
        {text('chip', 'Chip marking', 'BME280')}
      </div>
    </>
  );
}

/** What would tell parts apart that all match. */
function Questions({ questions }: { readonly questions: readonly string[] }) {
  if (questions.length === 0) return null;
  return (
    <div className={styles.settle}>
      <b>Several parts match. To tell them apart:</b>
      <ul>
        {questions.map((question) => (
          <li key={question}>{question}</li>
        ))}
      </ul>
    </div>
  );
}

/** Identifies a part by what is printed on it. */
export function Identify({ plan, parts, onClose }: IdentifyProps) {
  const [read, setRead] = useState(EMPTY);
  const clues = cluesOf(read);
  const reading = useReading<Identification>(read, (reviewer) => reviewer.identify(clues, MOST));
  const { candidates, settle } = reading.value ?? NOBODY;
  const additions = useAdditions(
    plan,
    candidates.map((c) => c.part.id),
  );
  return (
    <div className={styles.identify}>
      <div className={styles.identifyTop}>
        <h3 className={styles.heading}>Identify a part</h3>
        <Button variant="subtle" onClick={onClose}>
          Back to the list
        </Button>
      </div>
      <ClueFields read={read} onRead={setRead} />
      <div aria-live="polite">
        <ReadingState reading={reading} />
        <Questions questions={settle} />
        {candidates.length === 0 && reading.isCurrent && Object.keys(clues).length > 0 && (
          <p className="quiet">No part matches. Enter fewer labels, or search by function.</p>
        )}
      </div>
      <ul className={styles.list}>
        {candidates.map((candidate) => (
          <Found
            key={candidate.part.id}
            plan={plan}
            // The part of this page's sheets, not the copy that came from the worker.
            parts={[parts.find((part) => part.id === candidate.part.id) ?? candidate.part]}
            addition={additions.get(candidate.part.id)}
            lit={readTerminals(candidate)}
            evidence={<Evidence candidate={candidate} />}
          />
        ))}
      </ul>
    </div>
  );
}
