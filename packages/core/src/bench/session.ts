import { heardAs, isForProbe, type Question, questionLine } from './questions';
import { WATCH } from './trials';

/** A way to a probe: lines there and back. */
export interface BenchPort {
  /** Sends one line, without its end. Fails once the other side is gone. */
  send(line: string): Promise<void>;
  /** A listener receives every line, and one end signal. */
  listen(hear: { line(text: string): void; gone(): void }): void;
  close(): Promise<void>;
}

/** Does something later. @returns what calls it off */
export type Later = (milliseconds: number, act: () => void) => () => void;

export type SessionFault = 'gone' | 'silent' | 'flood' | 'stranger' | 'stopped';
export const SESSION_WORDS: { readonly [F in SessionFault]: string } = {
  gone: 'The probe disconnected. Plug it in and try again; the results so far are kept.',
  silent: 'No reply from the probe. Check that its program is running and that this is its port. The results so far are kept.',
  flood: 'Another program prints continuously on this port. Stop it, or run the probe program.',
  stranger: 'Unknown reply: this is not the probe. Run the probe program on the board.',
  stopped: 'Stopped. The results so far are kept.',
};

export type Reply = { readonly ok: true; readonly words: string } | { readonly ok: false; readonly fault: SessionFault };

/** Timeout for one answer in milliseconds, and the number of retries. */
const PATIENCE = 1500;
const TRIES = 3;
/** Number of unrelated lines after which the host stops waiting. */
const NOISE = 300;
const LONGEST = 200;

/** A session with a probe by the line protocol: one request at a time, repeated on timeout, other lines ignored. */
export class ProbeSession {
  #number = 0;
  #noise = 0;
  #gone = false;
  #waiting: { readonly number: number; readonly answer: (reply: Reply) => void } | undefined;

  constructor(
    private readonly port: BenchPort,
    private readonly later: Later,
  ) {
    port.listen({
      line: (text) => this.#hear(text),
      gone: () => {
        this.#gone = true;
        this.#settle({ ok: false, fault: 'gone' });
      },
    });
  }

  #settle(reply: Reply): void {
    const { answer } = this.#waiting ?? {};
    this.#waiting = undefined;
    answer?.(reply);
  }

  #hear(text: string): void {
    const match = text.length <= LONGEST ? /^(\d{1,6}) (ok|no)(?: (.*))?$/.exec(text.trim()) : null;
    if (match && Number(match[1]) === this.#waiting?.number) {
      this.#noise = 0;
      this.#settle({ ok: true, words: match[2] === 'ok' ? (match[3] ?? '') : `no ${match[3] ?? ''}`.trim() });
      return;
    }
    if (match) return;
    this.#noise += 1;
    if (this.#noise > NOISE) this.#settle({ ok: false, fault: 'flood' });
  }

  /** Sends a request, and repeats it on timeout.
   *  @param words of the request, without its number
   *  @param longer additional timeout in milliseconds, if the probe waits for the user */
  async request(words: string, longer = 0): Promise<Reply> {
    for (let tries = 0; tries < TRIES; tries += 1) {
      if (this.#gone) return { ok: false, fault: 'gone' };
      const reply = await this.#once(words, PATIENCE + longer);
      if (reply) return reply;
    }
    return { ok: false, fault: 'silent' };
  }

  async #once(words: string, patience: number): Promise<Reply | undefined> {
    this.#number += 1;
    const number = this.#number;
    const heard = new Promise<Reply | undefined>((resolve) => {
      const cancel = this.later(patience, () => {
        if (this.#waiting?.number === number) this.#waiting = undefined;
        resolve(undefined);
      });
      this.#waiting = {
        number,
        answer: (reply) => {
          cancel();
          resolve(reply);
        },
      };
    });
    try {
      await this.port.send(`${number} ${words}`);
    } catch {
      this.#gone = true;
      this.#settle({ ok: false, fault: 'gone' });
    }
    return heard;
  }

  close(): Promise<void> {
    return this.port.close();
  }
}

/** The answers so far, question by question; undefined where the user did not look. */
export interface Interview {
  readonly answers: readonly (string | undefined)[];
  readonly fault: SessionFault | undefined;
}

export type Heard = { readonly ok: true; readonly answer: string } | { readonly ok: false; readonly fault: SessionFault };

/** Maximum duration of an action that the user watches, in milliseconds. */
const SHOW = 12_000;

/** Asks one question.
 *  @param look returns what the user saw: `1`, `0` or `else`, or undefined if the user stopped; called after the probe has acted */
export async function askOne(session: ProbeSession, question: Question, look: () => Promise<string | undefined> | string): Promise<Heard> {
  const line = questionLine(question);
  let words = '';
  if (line !== undefined) {
    const longer = question.ask === 'watch' || question.ask === 'turn' ? WATCH : question.ask === 'sign' ? SHOW : 0;
    const reply = await session.request(line, longer);
    if (!reply.ok) return reply;
    // "no sda-low": a line that is held low is an answer, too.
    words = reply.words.replace(/^no /, '');
  }
  if (question.ask !== 'sign') return { ok: true, answer: heardAs(question, words) };
  const answer = await look();
  const undone = question.undo === undefined ? undefined : await session.request(question.undo);
  if (undone && !undone.ok) return undone;
  return answer === undefined ? { ok: false, fault: 'stopped' } : { ok: true, answer };
}

/** Asks all questions in order.
 *  @param onAnswer receives the number of answers; returns whether to go on
 *  @param look as in {@link askOne}; without it only questions that the probe answers alone */
export async function interview(
  session: ProbeSession,
  questions: readonly Question[],
  onAnswer: (done: number) => boolean = () => true,
  look?: (question: Question) => string,
): Promise<Interview> {
  const hello = await session.request('hello');
  if (!hello.ok) return { answers: [], fault: hello.fault };
  if (!/^probe 1\b/.test(hello.words)) return { answers: [], fault: 'stranger' };
  const answers: (string | undefined)[] = [];
  for (const question of questions) {
    if (!onAnswer(answers.length)) return { answers, fault: 'stopped' };
    if (!look && !isForProbe(question)) {
      answers.push(undefined);
      continue;
    }
    const heard = await askOne(session, question, () => look?.(question) ?? '0');
    if (!heard.ok) return { answers, fault: heard.fault };
    answers.push(heard.answer);
  }
  onAnswer(answers.length);
  return { answers, fault: undefined };
}
