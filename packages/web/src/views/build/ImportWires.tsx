import { firstOrThrow, orThrow } from '@roof-chart/core/collections/orThrow';
import { Button, FileButton, Modal, Select, Textarea } from '@mantine/core';
import { IconFileImport } from '@tabler/icons-react';
import { useMemo, useState } from 'react';
import { terminalText } from '@roof-chart/core/text/names';
import { answeredEdit, boardEndChoices, LIST_LENGTH, type MatchedWire, type WireAnswer } from '@roof-chart/core/outputs/wireList';
import { planTerminals } from '@roof-chart/core/nets/terminals';
import { endKey, type Plan, PLAN_LIMITS } from '@roof-chart/core/plan/plan';
import { counted } from '@roof-chart/core/quantity/format';
import { wireEndText } from '@roof-chart/core/text/wireEndText';
import { ReadingState } from '../../ui/ReadingState';
import { useReading } from '../../ui/useReading';
import { useWorkbench } from '../../state/workbench';
import styles from './Build.module.css';

/** What a listed wire comes to, in words, or what it may mean where that is not clear. */
function Match({
  plan,
  match,
  answer,
  onAnswer,
}: {
  readonly plan: Plan;
  readonly match: MatchedWire;
  readonly answer: WireAnswer;
  readonly onAnswer: (answer: WireAnswer) => void;
}) {
  const { sheets } = useWorkbench();
  const { terminals, end, open, there, edit, listed } = match;
  const ends = useMemo(() => boardEndChoices(plan, sheets), [plan, sheets]);
  if (there) return <span className="quiet">{open ? 'not connected in the plan either' : 'already in the plan'}</span>;
  if (edit)
    return (
      <>{`${terminalText(plan, sheets, firstOrThrow(terminals))} → ${open ? 'disconnected' : wireEndText(plan, sheets, orThrow(end, 'end of the wire'))}`}</>
    );
  if (listed.to === '') return <span className={styles.unmatched}>line too long</span>;
  const keys = terminals.length > 0 ? terminals : planTerminals(plan, sheets).flatMap((t) => (t.placement.onBoard ? [] : [t.key]));
  return (
    <span className={styles.asked}>
      {terminals.length !== 1 && (
        <Select
          size="xs"
          searchable
          aria-label={`Terminal meant in line ${listed.line}`}
          placeholder={terminals.length > 1 ? 'Which of these?' : 'No such terminal. Which one?'}
          data={keys.map((key) => ({ value: key, label: terminalText(plan, sheets, key) }))}
          value={answer.terminal ?? null}
          onChange={(terminal) => onAnswer({ ...answer, ...(terminal === null ? {} : { terminal }) })}
        />
      )}
      {!end && !open && (
        <Select
          size="xs"
          searchable
          aria-label={`Pin meant in line ${listed.line}`}
          placeholder="No such pin or rail. Which one?"
          data={ends.map(({ label, end: own }) => ({ value: endKey(own), label }))}
          value={answer.end ? endKey(answer.end) : null}
          onChange={(key) => {
            const found = ends.find((one) => endKey(one.end) === key);
            if (found) onAnswer({ ...answer, end: found.end });
          }}
        />
      )}
    </span>
  );
}

/** The text of a wire list, typed, pasted or from a file. */
function WireText({ text, onChange }: { readonly text: string; readonly onChange: (text: string) => void }) {
  return (
    <>
      <Textarea
        data-autofocus
        label="Wire list"
        description="A table (CSV, tab-separated, Markdown) or one wire per line."
        placeholder={'OLED SDA -> GP4\nOLED SCL -> GP5'}
        rows={7}
        maxLength={LIST_LENGTH}
        value={text}
        onChange={(event) => onChange(event.currentTarget.value)}
        styles={{ input: { fontFamily: 'var(--mono)', fontSize: 12 } }}
      />
      <FileButton
        accept=".csv,.tsv,.txt,.md,text/*"
        onChange={(file) => void file?.text().then((read) => onChange(read.slice(0, LIST_LENGTH)))}
      >
        {(props) => (
          <Button {...props} size="compact-sm" variant="default" mt={8}>
            Open file
          </Button>
        )}
      </FileButton>
    </>
  );
}

/** What was answered about a line, by its number. */
type Answers = { readonly [line: number]: WireAnswer };

interface MatchesProps {
  readonly plan: Plan;
  readonly matches: readonly MatchedWire[];
  readonly answers: Answers;
  readonly onAnswers: (answers: Answers) => void;
}

/** Each line of the list with what it is read as. */
function Matches({ plan, matches, answers, onAnswers }: MatchesProps) {
  if (matches.length === 0) return null;
  return (
    <table className={styles.bill}>
      <tbody>
        {matches.map((match) => (
          <tr key={match.listed.line}>
            <td className="num">{match.listed.line}</td>
            <td>{`${match.listed.from} → ${match.listed.to}`}</td>
            <td>
              <Match
                plan={plan}
                match={match}
                answer={answers[match.listed.line] ?? {}}
                onAnswer={(answer) => onAnswers({ ...answers, [match.listed.line]: answer })}
              />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** A wire list compared with the plan before it is imported. */
function Preview({ plan, onDone }: { readonly plan: Plan; readonly onDone: () => void }) {
  const { edit } = useWorkbench();
  const [text, setText] = useState('');
  const subject = useMemo(() => ({ plan, text }), [plan, text]);
  const reading = useReading<readonly MatchedWire[]>(subject, (reviewer) => reviewer.readWires(plan, text));
  const matches = reading.isCurrent ? (reading.value ?? []) : [];
  const [answers, setAnswers] = useState<Answers>({});
  const edits = matches
    .flatMap((match) => answeredEdit(plan, match, answers[match.listed.line] ?? {}) ?? [])
    .slice(0, PLAN_LIMITS.editsPerBatch);
  return (
    <>
      <WireText
        text={text}
        onChange={(next) => {
          setText(next);
          setAnswers({});
        }}
      />
      <div className={styles.matches} tabIndex={0} role="region" aria-label="Preview of the import" aria-live="polite">
        <ReadingState reading={reading} />
        {text.trim() !== '' && reading.isCurrent && reading.failure === null && matches.length === 0 && (
          <p className="quiet">No wires found in this text.</p>
        )}
        <Matches plan={plan} matches={matches} answers={answers} onAnswers={setAnswers} />
      </div>
      <Button
        disabled={edits.length === 0}
        onClick={() => {
          edit(edits, `import ${counted(edits.length, 'wire')}`);
          onDone();
        }}
      >
        {edits.length === 0 ? 'Nothing to import yet' : `Import ${counted(edits.length, 'wire')}`}
      </Button>
    </>
  );
}

/** The button that opens the import of a list of wires. */
export function ImportWires({ plan }: { readonly plan: Plan }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button variant="default" leftSection={<IconFileImport size={15} />} onClick={() => setOpen(true)}>
        Import wires
      </Button>
      <Modal opened={open} onClose={() => setOpen(false)} title="Import a wire list" size="xl">
        {open && <Preview plan={plan} onDone={() => setOpen(false)} />}
      </Modal>
    </>
  );
}
