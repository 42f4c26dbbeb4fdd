import { useEffect, useRef, useState } from 'react';
import type { Diagnosis } from '@roof-chart/core/bench/diagnose';
import { answerText } from '@roof-chart/core/text/faultText';
import { probeText } from '@roof-chart/core/text/views/benchText';
import { isForProbe, type Question, questionsFor } from '@roof-chart/core/bench/questions';
import { askOne, type BenchPort, interview, ProbeSession, SESSION_WORDS, type SessionFault } from '@roof-chart/core/bench/session';
import type { Plan, TerminalKey } from '@roof-chart/core/plan/plan';
import { useAnnounce } from '../../ui/announcer';
import { useWorkbench } from '../../state/workbench';
import { Stopped } from '../../workers/restartableWorker';

export const later = (milliseconds: number, act: () => void) => {
  const timer = setTimeout(act, milliseconds);
  return () => clearTimeout(timer);
};

export interface Found extends Diagnosis {
  readonly sure: readonly TerminalKey[];
  /** What would be answered where all is as planned. */
  readonly planned: readonly string[];
}

/** A bench test: questions, answers, and diagnosis. */
export interface Outcome {
  readonly plan: Plan;
  readonly questions: readonly Question[];
  readonly answers: readonly (string | undefined)[];
  readonly fault: SessionFault | undefined;
  readonly found: Found;
  /** The simulated bench answers for the user. */
  readonly isSimulated: boolean;
}

/** A port, and the simulated user of a simulated bench. */
export interface BenchAt {
  readonly port: BenchPort;
  readonly look?: (question: Question) => string;
}

interface Open extends BenchAt {
  readonly session: ProbeSession;
}

/** The question in progress: single, or one of all. */
export type Asking = { readonly done: number; readonly all: number } | { readonly at: number; readonly isLooking: boolean };

/** The open port and its session, with what the user is being asked. */
function usePort() {
  const [isOpen, setOpen] = useState(false);
  const stopping = useRef(false);
  const open = useRef<Open | null>(null);
  const seen = useRef<((answer: string | undefined) => void) | null>(null);
  useEffect(
    () => () => {
      void open.current?.port.close();
    },
    [],
  );
  return {
    isOpen,
    opened: () => open.current,
    begin(bench: BenchAt): Open {
      open.current = { ...bench, session: new ProbeSession(bench.port, later) };
      setOpen(true);
      return open.current;
    },
    async close() {
      const port = open.current?.port;
      open.current = null;
      // The user has not answered.
      seen.current?.(undefined);
      setOpen(false);
      await port?.close();
    },
    /** Waits for what the user sees. */
    look: () =>
      new Promise<string | undefined>((resolve) => {
        seen.current = resolve;
      }),
    looked() {
      seen.current = null;
    },
    see: (answer: string | undefined) => seen.current?.(answer),
    goOn() {
      stopping.current = false;
    },
    stop() {
      stopping.current = true;
      seen.current?.(undefined);
    },
    isStopped: () => stopping.current,
  };
}

/** The answers of another test at the same bench, by question: what was observed there is not requested again. */
function observed(before: Outcome | undefined): (question: Question) => string | undefined {
  const known = new Map(before?.questions.map((question, n) => [JSON.stringify(question), before.answers[n]]));
  return (question) => known.get(JSON.stringify(question));
}

type Port = ReturnType<typeof usePort>;

/** What the probe answers alone, as far as it came. */
function askProbe(port: Port, session: ProbeSession, questions: readonly Question[], onProgress: (done: number, all: number) => void) {
  const mine = questions.filter(isForProbe);
  onProgress(0, mine.length);
  return interview(session, mine, (done) => {
    onProgress(done, mine.length);
    return !port.isStopped();
  });
}

/** Reports while questions are asked that need the user. */
interface AskEvents {
  readonly onAsking: (asking: { readonly at: number; readonly isLooking: boolean }) => void;
  readonly onAnswer: (text: string) => void;
}

/** Asks one question that needs the user. @returns the answer, or why there is none */
async function askUser(port: Port, bench: Open, question: Question, at: number, { onAsking }: AskEvents) {
  onAsking({ at, isLooking: false });
  const heard = await askOne(bench.session, question, () => {
    if (bench.look) return bench.look(question);
    onAsking({ at, isLooking: true });
    return port.look();
  });
  port.looked();
  return heard;
}

/** Asks several, until one cannot be asked. @returns all answers there are, and why it ended early */
async function askUserAll(port: Port, { questions, answers: before }: Outcome, wanted: readonly number[], events: AskEvents) {
  const answers = [...before];
  for (const at of wanted) {
    const [bench, question] = [port.opened(), questions[at]];
    if (!bench || !question || port.isStopped()) break;
    const answer = await askUser(port, bench, question, at, events);
    if (!answer.ok) return { answers, fault: answer.fault === 'stopped' ? undefined : answer.fault };
    answers[at] = answer.answer;
    events.onAnswer(answerText(question, answer.answer));
  }
  return { answers, fault: undefined };
}

/** What went wrong last. */
function useProblem() {
  const [problem, setProblem] = useState<string | null>(null);
  const failed = (error: unknown) => {
    if (!(error instanceof Stopped)) setProblem((error as Error).message);
  };
  /** Runs a part of the session; a failure becomes the problem. */
  const attempt = async (run: () => Promise<void>, onFailure?: () => Promise<void>) => {
    setProblem(null);
    try {
      await run();
    } catch (error) {
      failed(error);
      await onFailure?.();
    }
  };
  return { problem, setProblem, failed, attempt };
}

/** The session with a bench: first all questions that the probe answers alone, then part by part those that need the user. */
export function useBench(plan: Plan) {
  const { sheets, workers } = useWorkbench();
  const announce = useAnnounce();
  const [asking, setAsking] = useState<Asking | null>(null);
  const [outcome, setOutcome] = useState<Outcome | null>(null);
  const { problem, setProblem, failed, attempt } = useProblem();
  const port = usePort();

  const take = async (asked: Plan, questions: readonly Question[], answers: Outcome['answers'], fault: SessionFault | undefined) => {
    const found = await workers.search<Found>((reviewer) => reviewer.diagnose(asked, questions, answers));
    setOutcome({ plan: asked, questions, answers, fault, found, isSimulated: port.opened()?.look !== undefined });
    return found;
  };
  const during = async (run: () => Promise<void>, onFailure?: () => Promise<void>) => {
    port.goOn();
    try {
      await attempt(run, onFailure);
    } finally {
      setAsking(null);
    }
  };
  const interviewAll = async (made: BenchAt) => {
    const { session } = port.begin(made);
    const questions = questionsFor(plan, sheets);
    const { answers, fault } = await askProbe(port, session, questions, (done, all) => setAsking({ done, all }));
    const before = observed(outcome && !outcome.isSimulated && !made.look ? outcome : undefined);
    let at = 0;
    const whole = questions.map((question) => (isForProbe(question) ? answers[at++] : before(question)));
    announce(probeText((await take(plan, questions, whole, fault)).different.length));
    if (fault) await port.close();
  };
  const askAll = async (from: Outcome, wanted: readonly number[]) => {
    const { answers, fault } = await askUserAll(port, from, wanted, { onAsking: setAsking, onAnswer: announce });
    if (fault) setProblem(SESSION_WORDS[fault]);
    await take(from.plan, from.questions, answers, fault);
    if (fault) await port.close();
  };

  return {
    asking,
    problem,
    isOpen: port.isOpen,
    outcome: outcome?.plan.wires === plan.wires ? outcome : null,
    /** Opens a bench and asks all that its probe answers alone. */
    check: async (opened: () => Promise<BenchAt | undefined>) => {
      await port.close();
      await during(async () => {
        const made = await opened();
        if (made) await interviewAll(made);
      }, port.close);
    },
    /** Asks questions that need the user: one, or all unanswered.
     *  @param wanted indices of the questions */
    ask: (from: Outcome, wanted: readonly number[]) => during(() => askAll(from, wanted)),
    /** Records an observation made with the user's own program. */
    tell: (from: Outcome, at: number, answer: string | undefined) =>
      take(from.plan, from.questions, from.answers.with(at, answer), from.fault).then(() => undefined, failed),
    see: port.see,
    stop: port.stop,
    close: port.close,
  };
}
