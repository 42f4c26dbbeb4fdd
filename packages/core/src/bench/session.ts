import { heardAs, isForProbe, type Question, questionLine } from './questions';
import { WATCH } from './trials';

/** A way to a probe: lines there and back. */
export interface BenchPort {
  /** Sends one line, without its end. Fails once the other side is gone. */
  send(line: string): Promise<void>;
  /** Whoever listens hears every line, and once that there will be no more. */
  listen(hear: { line(text: string): void; gone(): void }): void;
  close(): Promise<void>;
}

/** Does something later. @returns what calls it off */
export type Later = (milliseconds: number, act: () => void) => () => void;

export type SessionFault = 'gone' | 'silent' | 'flood' | 'stranger' | 'stopped';
export const SESSION_WORDS: { readonly [F in SessionFault]: string } = {
  gone: 'The probe is gone: was it unplugged? Plug it in and try again; what it answered so far is kept.',
  silent: 'The probe does not answer. Is its program running, and is this its port? What it answered so far is kept.',
  flood: 'Something else talks on this port without end. Stop the program that prints there, or run the probe program.',
  stranger: 'What answers here is no probe of this kind. Run the probe program on the board.',
  stopped: 'Stopped; what was answered so far is kept.',
};

export type Reply = { readonly ok: true; readonly words: string } | { readonly ok: false; readonly fault: SessionFault };

/** How long a probe may take for one answer, in milliseconds, and how often it is asked again. */
const PATIENCE = 1500;
const TRIES = 3;
/** Lines that are no answer, after which nobody waits for one any more. */
const NOISE = 300;
const LONGEST = 200;

/** A conversation with a probe by our line protocol: one request at a time, asked again where nothing comes, noise overheard. */
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

  /** Asks once, and again where nothing comes.
   *  @param words of the request, without its number
   *  @param longer milliseconds that the probe may take besides the usual, where it waits for somebody */
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

/** What was answered, question by question, as far as it came; undefined where nobody was there to look. */
export interface Interview {
  readonly answers: readonly (string | undefined)[];
  readonly fault: SessionFault | undefined;
}

export type Heard = { readonly ok: true; readonly answer: string } | { readonly ok: false; readonly fault: SessionFault };

/** How long a probe may do something that somebody looks at, in milliseconds. */
const SHOW = 12_000;

/** Asks one question.
 *  @param look says what somebody saw who looked: `1`, `0` or `else`, or undefined where nobody looks any more; called after the probe has
 *  done its part */
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

/** Asks a probe everything, one after another.
 *  @param onAnswer hears how many are answered; says whether to go on
 *  @param look as in {@link askOne}; without it only what the probe can say alone is asked */
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
