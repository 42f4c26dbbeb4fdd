import { atOrThrow, firstOrThrow, lastOrThrow } from '../collections/orThrow';
import type { Plan } from '../plan/plan';
import { boardOf } from '../plan/edit';
import type { Sheets } from '../sheets/sheetIndex';
import { type BenchFault, type Circuit, circuitOf, voltsAt } from './circuit';
import { answerOf, type ProbeOhms } from './answers';
import { type Question, questionLine, questionsFor } from './questions';
import type { BenchPort, Later } from './session';

/** How a bench may behave badly, beside what is wired wrongly on it. */
export type BenchTrouble = 'garbage' | 'flood' | 'stall' | 'unplug' | 'stranger';

export interface BenchOptions {
  readonly faults?: readonly BenchFault[];
  /** Resistors and the probe's pins differ from bench to bench. */
  readonly seed?: number;
  readonly trouble?: BenchTrouble;
}

/** Requests after which a bench that stalls or is unplugged does so. */
const TROUBLE_AFTER = 5;
const FLOOD = 400;

/** A small generator: the same seed is the same bench everywhere. */
function randomFrom(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
}

/** A bench wired according to the plan, with the given faults, behind a probe that speaks the line protocol. */
export class SimulatedBench {
  readonly #circuit: Circuit;
  readonly #probe: ProbeOhms;
  readonly #pins: ReadonlySet<string>;
  readonly #title: string;
  readonly #trouble: BenchTrouble | undefined;
  /** The questions of this plan by protocol line. */
  readonly #lines: ReadonlyMap<string, Question>;
  #requests = 0;

  /** @throws RangeError when the plan's board is not known */
  constructor(plan: Plan, sheets: Sheets, { faults = [], seed = 1, trouble }: BenchOptions = {}) {
    const draw = randomFrom(seed);
    const circuit = circuitOf(plan, sheets, faults, { resistor: () => 0.95 + draw() * 0.1 });
    const board = boardOf(plan, sheets);
    if (!circuit || !board) throw new RangeError(`plan ${plan.id}: its board ${plan.board.id} is not known`);
    this.#circuit = circuit;
    this.#probe = { pull: 35_000 + draw() * 40_000, drive: 15 + draw() * 30 };
    this.#pins = new Set(board.sheet.pins.list.filter((pin) => pin.kind === 'io').map((pin) => pin.id));
    this.#title = board.sheet.id;
    this.#trouble = trouble;
    this.#lines = new Map(
      questionsFor(plan, sheets).flatMap((question) => {
        const line = questionLine(question);
        return line === undefined ? [] : [[line, question] as const];
      }),
    );
  }

  /** What the user would see on this bench when following a question. */
  look(question: Question): string {
    return answerOf(this.#circuit, question, this.#probe);
  }

  /** The reply to a line; `gone` once the probe is disconnected. */
  answer(line: string): readonly string[] | 'gone' {
    this.#requests += 1;
    if (this.#trouble === 'unplug' && this.#requests > TROUBLE_AFTER) return 'gone';
    if (this.#trouble === 'stall' && this.#requests > TROUBLE_AFTER) return [];
    if (this.#trouble === 'flood') return Array.from({ length: FLOOD }, (_, n) => `temperature ${n}`);
    const match = /^(\d{1,6}) ([a-z]+)((?: \S+)*)\s*$/.exec(line);
    if (!match) return ['# unknown command'];
    const said = `${match[1]} ${this.#reply(atOrThrow(match, 2), atOrThrow(match, 3).trim().split(' ').filter(Boolean))}`;
    return this.#trouble === 'garbage' ? ['\u0000\ufffd~~', '17 maybe', said.slice(0, 3), '', said] : [said];
  }

  /** Microseconds until an emptied pin is high. */
  #rise(pin: string): string {
    const volts = voltsAt(this.#circuit, pin, []);
    if (volts === undefined || volts <= this.#circuit.volts / 2) return 'never';
    const siemens = this.#circuit.sources.reduce((sum, source) => sum + (source.pin === pin ? 1 / source.ohms : 0), 0);
    return String(Math.round(((LINE_FARADS / siemens) * Math.LN2) / 1e-6));
  }

  /** The reaction of a part under test: the simulated user acts immediately. */
  #act(verb: string, words: readonly string[]): string {
    const question = this.#lines.get([verb, ...words].join(' '));
    const answer = question && this.look(question);
    switch (verb) {
      case 'span':
        return answer === '1' ? 'ok 2 96' : 'ok 40 41';
      case 'spi': {
        const bytes = lastOrThrow(words).replace(/^\^/, '').length / 2;
        const at = question?.ask === 'reply' && answer === '1' ? question : undefined;
        return `ok ${Array.from({ length: bytes }, (_, n) => (n === at?.after ? at.byte.toString(16).padStart(2, '0') : 'ff')).join('')}`;
      }
      case 'pulse':
        return 'ok';
      default:
        return `ok ${answer ?? '0'}`;
    }
  }

  #reply(verb: string, words: readonly string[]): string {
    if (verb === 'hello') return this.#trouble === 'stranger' ? 'ok thermometer' : `ok probe 1 ${this.#title}`;
    const pins = (PINS_OF[verb] ?? ((all) => all.filter((word) => !['up', 'down'].includes(word))))(words);
    const unknown = pins.find((pin) => !this.#pins.has(pin));
    if (unknown !== undefined) return `no pin ${unknown.slice(0, 20)}`;
    if (verb === 'drive' && words.length === 3 && /^[01]$/.test(atOrThrow(words, 1))) return 'ok';
    if (verb === 'walk' && words.length > 1) return `ok ${words.length - 1}`;
    if (verb === 'rise' && words.length === 1) return `ok ${this.#rise(firstOrThrow(words))}`;
    if (ACTS.test([verb, ...words].join(' '))) return this.#act(verb, words);
    const question = asked(verb, words);
    if (!question) return 'no verb';
    const answer = this.look(question);
    if (verb === 'search') return `ok ${Array.from({ length: Number(answer) || 0 }, romCode).join(' ') || 'none'}`;
    return /low$/.test(answer) ? `no ${answer}` : `ok ${answer}`;
  }
}

/** Words of a request that are pins, where that is not all of them. */
const PINS_OF: { readonly [verb: string]: (words: readonly string[]) => readonly string[] } = {
  drive: (words) => words.slice(0, 1),
  walk: (words) => words.slice(1),
  watch: (words) => words.slice(0, 1),
  span: (words) => words.slice(0, 1),
  pulse: (words) => words.slice(0, 1),
  turn: (words) => words.slice(0, 2),
  spi: (words) => words.slice(0, 4).filter((word) => word !== '-'),
};

/** Well-formed requests of the verbs that test parts. */
const ACTS = /^(?:(?:watch|span) \S+ \d+|turn \S+ \S+ \d+|pulse \S+ \d+ \d+ \d+|spi \S+ \S+ \S+ \S+(?: \^?(?:[0-9a-f]{2})+)+)$/;

/** Capacitance of a line with its wires in farads, for rise times. */
const LINE_FARADS = 100e-12;

/** The number of a 1-Wire part that is made up. */
const romCode = (_: unknown, n: number): string => `28${n.toString(16).padStart(14, '0')}`;

/** The question in a request; undefined where it is none. */
function asked(verb: string, words: readonly string[]): Question | undefined {
  const [first, second] = words;
  if ((verb === 'held' || verb === 'search') && first !== undefined && words.length === 1) return { ask: verb, pin: first };
  if (first === undefined || second === undefined || words.length !== 2) return undefined;
  if (verb === 'scan') return { ask: 'scan', sda: first, scl: second };
  if (verb === 'read' && (second === 'up' || second === 'down')) return { ask: 'read', pin: first, pull: second };
  return verb === 'link' ? { ask: 'link', drive: first, read: second } : undefined;
}

/** A port to a simulated bench in the same program. */
export function simulatedPort(bench: SimulatedBench, later: Later): BenchPort {
  let hear: Parameters<BenchPort['listen']>[0] | undefined;
  let gone = false;
  return {
    listen: (listener) => {
      hear = listener;
    },
    send: (line) => {
      if (gone) return Promise.reject(new Error('The simulated bench was closed'));
      const said = bench.answer(line);
      later(0, () => {
        if (said === 'gone') {
          gone = true;
          hear?.gone();
        } else for (const one of said) hear?.line(one);
      });
      return Promise.resolve();
    },
    close: () => Promise.resolve(),
  };
}
