import { Button, Checkbox } from '@mantine/core';
import { useState } from 'react';
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

/** The tests that need the user, part by part, with their results. */
export function Trials({ outcome, asking, isOpen, ask, tell, see }: TrialsProps) {
  const { sheets } = useWorkbench();
  const [mayMove, setMayMove] = useState(false);
  const { plan, questions, answers, isSimulated } = outcome;
  const rows = questions.flatMap((question, at) => (isForProbe(question) ? [] : [{ question, at }]));
  if (rows.length === 0) return null;
  const isLet = (question: Question) => mayMove || isSimulated || !movesOf(question);
  const open = rows.filter(({ question, at }) => answers[at] === undefined && isLet(question));
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
          className={styles.leave!}
          size="sm"
          color="dark.6"
          checked={mayMove}
          label="Allow outputs to move, heat and switch (hands clear, mains disconnected)"
          onChange={(event) => setMayMove(event.currentTarget.checked)}
        />
      )}
      <table className={styles.table}>
        <thead>
          <tr>
            <th scope="col">Part</th>
            <th scope="col">Test</th>
            <th scope="col">Result</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ question, at }) => {
            const { part, words, button } = trialText(plan, sheets, question);
            const isMine = asking !== null && 'at' in asking && asking.at === at;
            const isLooking = isMine && asking.isLooking;
            const isOwn = question.ask === 'sign' && questionLine(question) === undefined;
            const answer = answers[at];
            return (
              <tr key={`${question.ask} ${at}`}>
                <th scope="row">{part}</th>
                <td className={styles.try}>{words}</td>
                <td>
                  <div className={styles.answer}>
                    {answer !== undefined && (
                      <span className={answer === outcome.found.planned[at] ? styles.good : styles.bad}>
                        {answerText(question, answer)}
                      </span>
                    )}
                    {isMine && !isLooking && (
                      <span className="quiet">{question.ask === 'sign' ? 'the probe drives it' : 'now: the probe is monitoring'}</span>
                    )}
                    {isLooking || (isOwn && answer === undefined && !isSimulated) ? (
                      SEEN.map((one) => (
                        <Button
                          key={one.answer}
                          size="compact-xs"
                          variant="default"
                          aria-label={`${part}: ${one.words}`}
                          onClick={() => (isLooking ? see(one.answer) : void tell(outcome, at, one.answer))}
                        >
                          {one.words}
                        </Button>
                      ))
                    ) : (
                      <Button
                        size="compact-xs"
                        variant="default"
                        aria-label={`${part}: ${answer === undefined ? button : 'Again'}`}
                        disabled={asking !== null || (!isOpen && !(isOwn && answer !== undefined)) || !isLet(question)}
                        onClick={() => void (isOwn && !isSimulated ? tell(outcome, at, undefined) : ask(outcome, [at]))}
                      >
                        {answer === undefined ? button : 'Again'}
                      </Button>
                    )}
                  </div>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {isSimulated && open.length > 1 && (
        <Button
          size="compact-sm"
          variant="default"
          disabled={asking !== null || !isOpen}
          onClick={() =>
            void ask(
              outcome,
              open.map((one) => one.at),
            )
          }
        >
          Run all {open.length} tests
        </Button>
      )}
    </section>
  );
}
