import clsx from 'clsx';
import { Button, Checkbox } from '@mantine/core';
import { type ReactNode, useState } from 'react';
import { answerText } from '@roof-chart/core/text/faultText';
import { isForProbe, type Question, questionLine } from '@roof-chart/core/bench/questions';
import { useWorkbench } from '../../state/workbench';
import { trialText } from '@roof-chart/core/text/views/benchText';
import styles from './BringUp.module.css';
import type { Asking, Outcome } from './useBench';

interface TrialsProps {
  readonly outcome: Outcome;
  readonly asking: Asking | null;
  readonly isOpen: boolean;
  readonly ask: (outcome: Outcome, wanted: readonly number[]) => Promise<void>;
  readonly tell: (outcome: Outcome, at: number, answer: string | undefined) => Promise<void>;
  readonly see: (answer: string) => void;
}

const SEEN = [
  { answer: '1', words: 'Yes, only that' },
  { answer: '0', words: 'No' },
  { answer: 'else', words: 'Others too' },
] as const;

const movesOf = (question: Question): boolean => (question.ask === 'sign' && question.moves) || question.ask === 'link';

interface TrialProps extends Omit<TrialsProps, 'asking'> {
  readonly question: Question;
  readonly at: number;
  /** How far this very question is; undefined while it is not being asked. */
  readonly now: 'asked' | 'looking' | undefined;
  /** Whether any question is being asked. */
  readonly isBusy: boolean;
  /** Whether its outputs may be driven. */
  readonly isLet: boolean;
}

/** What is asked and answered of one test: by the probe, or by the user. */
function TrialAnswer({ outcome, question, at, now, isBusy, isLet, isOpen, ask, tell, see }: TrialProps) {
  const { sheets } = useWorkbench();
  const { part, button } = trialText(outcome.plan, sheets, question);
  const { isSimulated } = outcome;
  const answer = outcome.answers[at];
  // A test that the probe cannot make is made with the user's own program.
  const isOwn = question.ask === 'sign' && questionLine(question) === undefined;
  const words = answer === undefined ? button : 'Again';
  return (
    <div className={styles.answer}>
      {answer !== undefined && (
        <span className={answer === outcome.found.planned[at] ? styles.good : styles.bad}>{answerText(question, answer)}</span>
      )}
      {now === 'asked' && <span className="quiet">{question.ask === 'sign' ? 'the probe drives it' : 'now: the probe is monitoring'}</span>}
      {now === 'looking' || (isOwn && answer === undefined && !isSimulated) ? (
        SEEN.map((one) => (
          <Button
            key={one.answer}
            size="compact-xs"
            variant="default"
            aria-label={`${part}: ${one.words}`}
            onClick={() => (now === 'looking' ? see(one.answer) : void tell(outcome, at, one.answer))}
          >
            {one.words}
          </Button>
        ))
      ) : (
        <Button
          size="compact-xs"
          variant="default"
          aria-label={`${part}: ${words}`}
          disabled={isBusy || (!isOpen && !(isOwn && answer !== undefined)) || !isLet}
          onClick={() => void (isOwn && !isSimulated ? tell(outcome, at, undefined) : ask(outcome, [at]))}
        >
          {words}
        </Button>
      )}
    </div>
  );
}

function TrialRow(props: TrialProps) {
  const { sheets } = useWorkbench();
  const { part, words } = trialText(props.outcome.plan, sheets, props.question);
  return (
    <tr>
      <th scope="row">{part}</th>
      <td className={styles.try}>{words}</td>
      <td>
        <TrialAnswer {...props} />
      </td>
    </tr>
  );
}

/** How far a question is. */
function nowOf(asking: Asking | null, at: number): TrialProps['now'] {
  if (asking === null || !('at' in asking) || asking.at !== at) return undefined;
  return asking.isLooking ? 'looking' : 'asked';
}

/** The table of the tests.
 *  @param children its rows */
function TrialTable({ children }: { readonly children: ReactNode }) {
  return (
    <table className={styles.table}>
      <thead>
        <tr>
          <th scope="col">Part</th>
          <th scope="col">Test</th>
          <th scope="col">Result</th>
        </tr>
      </thead>
      <tbody>{children}</tbody>
    </table>
  );
}

/** The tests that need the user, part by part, with their results. */
export function Trials({ asking, ...props }: TrialsProps) {
  const [mayMove, setMayMove] = useState(false);
  const { questions, answers, isSimulated } = props.outcome;
  const rows = questions.flatMap((question, at) => (isForProbe(question) ? [] : [{ question, at }]));
  if (rows.length === 0) return null;
  const isLet = (question: Question) => mayMove || isSimulated || !movesOf(question);
  const open = rows.filter(({ question, at }) => answers[at] === undefined && isLet(question)).map(({ at }) => at);
  const hasMoving = rows.some(({ question }) => movesOf(question));
  return (
    <section aria-label="Part by part">
      <h4>Part by part</h4>
      <p className="quiet">
        {isSimulated
          ? 'Tests of what the probe cannot measure. The simulated bench answers them for you.'
          : 'Checks that need you: do this, then say what you see. Skip what you cannot test now.'}
      </p>
      {hasMoving && !isSimulated && (
        <Checkbox
          className={clsx(styles.leave)}
          size="sm"
          color="dark.6"
          checked={mayMove}
          label="Allow outputs to move, heat and switch (hands clear, mains disconnected)"
          onChange={(event) => setMayMove(event.currentTarget.checked)}
        />
      )}
      <TrialTable>
        {rows.map(({ question, at }) => (
          <TrialRow
            key={`${question.ask} ${at}`}
            {...props}
            question={question}
            at={at}
            now={nowOf(asking, at)}
            isBusy={asking !== null}
            isLet={isLet(question)}
          />
        ))}
      </TrialTable>
      {isSimulated && open.length > 1 && (
        <Button
          size="compact-sm"
          variant="default"
          disabled={asking !== null || !props.isOpen}
          onClick={() => void props.ask(props.outcome, open)}
        >
          Run all {open.length} tests
        </Button>
      )}
    </section>
  );
}
