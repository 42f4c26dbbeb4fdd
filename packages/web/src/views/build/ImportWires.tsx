import { Button, FileButton, Modal, Textarea } from '@mantine/core';
import { IconFileImport } from '@tabler/icons-react';
import { useMemo, useState } from 'react';
import { sayTerminal } from '@roof-chart/core/checks/say';
import { LIST_LENGTH, type MatchedWire } from '@roof-chart/core/outputs/wireList';
import { type Plan, PLAN_LIMITS } from '@roof-chart/core/plan/plan';
import { counted } from '@roof-chart/core/quantity/format';
import { endWords } from '../../app/editWords';
import { ReadingState } from '../../app/ReadingState';
import { useReading } from '../../app/useReading';
import { useWorkbench } from '../../app/workbench';
import styles from './Build.module.css';

/** What a listed wire comes to, in words. */
function Match({ plan, match }: { readonly plan: Plan; readonly match: MatchedWire }) {
  const { sheets } = useWorkbench();
  const { terminals, end, there, edit } = match;
  if (there) return <span className="quiet">already in the plan</span>;
  if (edit) return <>{`${sayTerminal(plan, sheets, terminals[0]!)} → ${endWords(plan, sheets, end!)}`}</>;
  if (terminals.length === 0) return <span className={styles.unmatched}>no such terminal in this plan</span>;
  if (terminals.length > 1)
    return (
      <span className={styles.unmatched}>
        ambiguous:{' '}
        {terminals
          .slice(0, 3)
          .map((key) => sayTerminal(plan, sheets, key))
          .join(', ')}
        {terminals.length > 3 ? ' …' : '?'}
      </span>
    );
  return <span className={styles.unmatched}>no such pin, rail or terminal</span>;
}

/** A wire list compared with the plan before it is imported. */
function Preview({ plan, onDone }: { readonly plan: Plan; readonly onDone: () => void }) {
  const { edit } = useWorkbench();
  const [text, setText] = useState('');
  const subject = useMemo(() => ({ plan, text }), [plan, text]);
  const reading = useReading<readonly MatchedWire[]>(subject, (reviewer) => reviewer.readWires(plan, text));
  const matches = reading.isCurrent ? (reading.value ?? []) : [];
  const edits = matches.flatMap((match) => match.edit ?? []).slice(0, PLAN_LIMITS.editsPerBatch);
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
        onChange={(event) => setText(event.currentTarget.value)}
        styles={{ input: { fontFamily: 'var(--mono)', fontSize: 12 } }}
      />
      <FileButton
        accept=".csv,.tsv,.txt,.md,text/*"
        onChange={(file) => void file?.text().then((read) => setText(read.slice(0, LIST_LENGTH)))}
      >
        {(props) => (
          <Button {...props} size="compact-sm" variant="default" mt={8}>
            Open file
          </Button>
        )}
      </FileButton>
      <div className={styles.matches} tabIndex={0} role="region" aria-label="Preview of the import" aria-live="polite">
        <ReadingState reading={reading} />
        {text.trim() !== '' && reading.isCurrent && reading.failure === null && matches.length === 0 && (
          <p className="quiet">No wires found in this text.</p>
        )}
        {matches.length > 0 && (
          <table className={styles.bill}>
            <tbody>
              {matches.map((match) => (
                <tr key={match.listed.line}>
                  <td className="num">{match.listed.line}</td>
                  <td>{`${match.listed.from} → ${match.listed.to}`}</td>
                  <td>
                    <Match plan={plan} match={match} />
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
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
