import { useEffect, useRef, useState } from 'react';
import { counted } from '@roof-chart/core/quantity/format';
import type { Diagnosis } from '@roof-chart/core/bench/diagnose';
import { answerText } from '@roof-chart/core/text/faultText';
import { isForProbe, type Question, questionsFor } from '@roof-chart/core/bench/questions';
import { askOne, type BenchPort, interview, ProbeSession, SESSION_WORDS, type SessionFault } from '@roof-chart/core/bench/session';
import type { Plan, TerminalKey } from '@roof-chart/core/plan/plan';
import { useAnnounce } from '../../ui/announcer';
import { useWorkbench } from '../../state/workbench';
import { Stopped } from '../../workers/workerSeat';

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

/** The session with a bench: first all questions that the probe answers alone, then part by part those that need the user. */
export function useBench(plan: Plan) {
  const { sheets, workers } = useWorkbench();
  const announce = useAnnounce();
  const [asking, setAsking] = useState<Asking | null>(null);
  const [outcome, setOutcome] = useState<Outcome | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [isOpen, setOpen] = useState(false);
  const stopping = useRef(false);
  const open = useRef<Open | null>(null);
  const seen = useRef<((answer: string | undefined) => void) | null>(null);

  const close = async () => {
    const port = open.current?.port;
    open.current = null;
    // The user has not answered.
    seen.current?.(undefined);
    setOpen(false);
    await port?.close();
  };
  useEffect(
    () => () => {
      void open.current?.port.close();
    },
    [],
  );

  const take = async (asked: Plan, questions: readonly Question[], answers: Outcome['answers'], fault: SessionFault | undefined) => {
    const found = await workers.search<Found>((reviewer) => reviewer.diagnose(asked, questions, answers));
    setOutcome({ plan: asked, questions, answers, fault, found, isSimulated: open.current?.look !== undefined });
    return found;
  };
  const failed = (error: unknown) => {
    if (!(error instanceof Stopped)) setProblem((error as Error).message);
  };

  const check = async (opened: () => Promise<BenchAt | undefined>) => {
    setProblem(null);
    stopping.current = false;
    await close();
    try {
      const bench = await opened();
      if (!bench) return;
      open.current = { ...bench, session: new ProbeSession(bench.port, later) };
      setOpen(true);
      const questions = questionsFor(plan, sheets);
      const mine = questions.filter(isForProbe);
      setAsking({ done: 0, all: mine.length });
      const { answers, fault } = await interview(open.current.session, mine, (done) => {
        setAsking({ done, all: mine.length });
        return !stopping.current;
      });
      // Answers are kept by question. Observations at this bench are not requested again.
      const before = outcome && !outcome.isSimulated && !bench.look ? outcome : undefined;
      const known = new Map(before?.questions.map((question, n) => [JSON.stringify(question), before.answers[n]]));
      let at = 0;
      const beside = questions.map((question) => (isForProbe(question) ? answers[at++] : known.get(JSON.stringify(question))));
      const { different } = await take(plan, questions, beside, fault);
      announce(
        different.length === 0
          ? 'The probe confirms the plan'
          : `${counted(different.length, 'answer')} ${different.length === 1 ? 'differs' : 'differ'} from the plan`,
      );
      if (fault) await close();
    } catch (error) {
      failed(error);
      await close();
    } finally {
      setAsking(null);
    }
  };

  /** Asks questions that need the user: one, or all unanswered.
   *  @param wanted indices of the questions */
  const ask = async (from: Outcome, wanted: readonly number[]) => {
    setProblem(null);
    stopping.current = false;
    const answers = [...from.answers];
    let fault: SessionFault | undefined;
    try {
      for (const at of wanted) {
        const bench = open.current;
        const question = from.questions[at]!;
        if (!bench || stopping.current) break;
        setAsking({ at, isLooking: false });
        const heard = await askOne(bench.session, question, () => {
          if (bench.look) return bench.look(question);
          setAsking({ at, isLooking: true });
          return new Promise<string | undefined>((resolve) => {
            seen.current = resolve;
          });
        });
        seen.current = null;
        if (!heard.ok) {
          if (heard.fault === 'stopped') break;
          fault = heard.fault;
          setProblem(SESSION_WORDS[heard.fault]);
          break;
        }
        answers[at] = heard.answer;
        announce(answerText(question, heard.answer));
      }
      await take(from.plan, from.questions, answers, fault);
      if (fault) await close();
    } catch (error) {
      failed(error);
    } finally {
      setAsking(null);
    }
  };

  return {
    asking,
    problem,
    isOpen,
    outcome: outcome?.plan.wires === plan.wires ? outcome : null,
    check,
    ask,
    /** Records an observation made with the user's own program. */
    tell: async (from: Outcome, at: number, answer: string | undefined) => {
      try {
        await take(from.plan, from.questions, from.answers.with(at, answer), from.fault);
      } catch (error) {
        failed(error);
      }
    },
    see: (answer: string) => seen.current?.(answer),
    stop: () => {
      stopping.current = true;
      seen.current?.(undefined);
    },
    close,
  };
}
