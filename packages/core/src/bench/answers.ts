import type { Plan } from '../plan/plan';
import type { Sheets } from '../sheets/sheetIndex';
import { type BenchFault, type Circuit, circuitOf, type Hold, PULL_OHMS, voltsAt } from './circuit';
import type { Question } from './questions';
import type { Needs, Trial } from './trials';

/** What the probe's own pins are like, in ohms. */
export interface ProbeOhms {
  readonly pull: number;
  readonly drive: number;
}
const NOMINAL: ProbeOhms = { pull: PULL_OHMS, drive: 25 };

const touch = ({ shorts }: Circuit, a: string, b: string): boolean =>
  a === b || shorts.some((pair) => pair.includes(a) && pair.includes(b));

/** How a part does with what is wired wrongly: `1` as it should, `0` not, `else` with something else that does something, too. */
function works(circuit: Circuit, { lines, parts }: Needs): '0' | '1' | 'else' {
  const { joints, shorts, out } = circuit;
  if (parts.some((id) => out.has(id)) || lines.some(({ key, pin }) => joints.get(key)?.pin !== pin)) return '0';
  const own = new Set(lines.map((line) => line.key));
  const pins = new Set(lines.map((line) => line.pin));
  // What is wired to a pin of the trial by mistake, or touches one.
  const touching = shorts.flatMap(([a, b]) => (pins.has(a) ? [b] : pins.has(b) ? [a] : []));
  if (touching.some((pin) => pins.has(pin))) return '0';
  const strays = [...joints].filter(([key, joint]) => !own.has(key) && (touching.includes(joint.pin) || circuit.misplaced.has(key)));
  const here = strays.filter(([, { pin }]) => touching.includes(pin) || pins.has(pin)).map(([, joint]) => joint);
  if (here.some((joint) => joint.drives)) return '0';
  return here.some((joint) => joint.shows) ? 'else' : '1';
}

/** What a trial of a part comes to. */
function triedAs(circuit: Circuit, trial: Trial, high: (pin: string, holds: readonly Hold[]) => boolean): string {
  const { joints, searched, live } = circuit;
  const moves = (key: string, pin: string) => {
    const joint = joints.get(key);
    return joint !== undefined && live(key) && touch(circuit, joint.pin, pin);
  };
  switch (trial.ask) {
    case 'search': {
      const found = high(trial.pin, []) ? searched.filter((pin) => touch(circuit, pin, trial.pin)).length : 0;
      return found === 0 ? 'none' : String(found);
    }
    case 'watch':
      return moves(trial.key, trial.pin) ? '1' : '0';
    case 'turn': {
      const [[a, b], [first, second]] = [trial.keys, trial.pins];
      if (touch(circuit, first, second)) return 'none';
      if (moves(a, first) && moves(b, second)) return 'a';
      return moves(a, second) && moves(b, first) ? 'b' : 'none';
    }
    case 'reply':
      return works(circuit, trial.needs) === '0' ? '0' : '1';
    case 'sign':
      return works(circuit, trial.needs);
  }
}

/** What a circuit answers to a question: addresses in hexadecimal, `none`, a stuck line, or a level. */
export function answerOf(circuit: Circuit, question: Question, probe: ProbeOhms = NOMINAL): string {
  const { pull, drive } = probe;
  const high = (pin: string, holds: readonly Hold[]) => (voltsAt(circuit, pin, holds) ?? 0) > circuit.volts / 2;
  if (question.ask === 'read')
    return high(question.pin, [
      question.pull === 'up'
        ? { pin: question.pin, ohms: pull, volts: circuit.volts }
        : { pin: question.pin, ohms: (circuit.downOhms * pull) / PULL_OHMS, volts: 0 },
    ])
      ? '1'
      : '0';
  if (question.ask === 'link') {
    const holds = [
      { pin: question.drive, ohms: drive, volts: 0 },
      { pin: question.read, ohms: pull, volts: circuit.volts },
    ];
    return high(question.read, holds) ? '1' : '0';
  }
  if (question.ask === 'held') {
    const [up, down] = (['up', 'down'] as const).map((way) => answerOf(circuit, { ask: 'read', pin: question.pin, pull: way }, probe));
    return up === down ? '1' : '0';
  }
  if (question.ask !== 'scan') return triedAs(circuit, question, high);
  const { sda, scl } = question;
  if (!high(scl, [])) return 'scl-low';
  if (!high(sda, [])) return 'sda-low';
  const found = circuit.devices.filter((d) => d.sda === sda && d.scl === scl && d.sda !== d.scl).map((d) => d.address);
  const list = [...new Set(touch(circuit, sda, scl) ? [] : found)].sort((a, b) => a - b);
  return list.length === 0 ? 'none' : list.map((address) => address.toString(16).padStart(2, '0')).join(' ');
}

/** What a plan answers to every question when it is wired with these faults. */
export function answersOf(
  plan: Plan,
  sheets: Sheets,
  questions: readonly Question[],
  faults: readonly BenchFault[] = [],
): readonly string[] {
  const circuit = circuitOf(plan, sheets, faults);
  return circuit ? questions.map((question) => answerOf(circuit, question)) : [];
}
