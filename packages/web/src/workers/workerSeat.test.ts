import { expose } from 'comlink';
import { MessageChannel, type MessagePort } from 'node:worker_threads';
import nodeEndpoint from 'comlink/dist/umd/node-adapter';
import { stick } from '../../../core/tests/makePlan';
import { ReviewFeed } from './reviewFeed';
import { Stopped, WorkerFailed, type WorkerLike, WorkerSeat } from './workerSeat';

type Mood = 'well' | 'stuck' | 'dies';
const started: Mood[] = [];
const ports: MessagePort[] = [];
afterEach(() => {
  for (const port of ports.splice(0)) port.close();
  started.length = 0;
});

/** A worker of another thread in this one: answers, never answers, or dies when it is asked. */
function fakeWorker(mood: Mood): WorkerLike {
  started.push(mood);
  const { port1, port2 } = new MessageChannel();
  ports.push(port1, port2);
  const listeners: (() => void)[] = [];
  const review = () => {
    if (mood === 'dies') for (const listener of listeners) listener();
    return mood === 'well' ? Promise.resolve('reviewed') : new Promise(() => undefined);
  };
  expose({ load: () => undefined, review }, nodeEndpoint(port2));
  const worker = Object.assign(nodeEndpoint(port1), { terminate: () => port1.close() });
  const add = worker.addEventListener.bind(worker);
  worker.addEventListener = ((type: string, listener: () => void, more: object) =>
    type === 'message' ? add(type, listener as never, more) : listeners.push(listener)) as typeof worker.addEventListener;
  return worker as unknown as WorkerLike;
}

const seatOf = (...moods: Mood[]) => {
  let at = 0;
  return new WorkerSeat({ sheets: [], limitMs: 60, makeWorker: () => fakeWorker(moods[Math.min(at++, moods.length - 1)]!) });
};
const ask = (seat: WorkerSeat) => seat.ask((reviewer) => reviewer.review(stick()) as Promise<unknown>);

test('a worker that answers is kept', async () => {
  const seat = seatOf('well');
  expect([await ask(seat), await ask(seat), started]).toEqual(['reviewed', 'reviewed', ['well']]);
  seat.stop();
});

test.each(['stuck', 'dies'] as const)('a worker that is %s is replaced once, and the question asked again', async (mood) => {
  const seat = seatOf(mood, 'well');
  expect([await ask(seat), started]).toEqual(['reviewed', [mood, 'well']]);
  seat.stop();
});

test('a second failure is told; stopping is no failure', async () => {
  await expect(ask(seatOf('stuck', 'dies'))).rejects.toBeInstanceOf(WorkerFailed);
  const seat = seatOf('stuck');
  const asked = ask(seat);
  seat.stop();
  await expect(asked).rejects.toBeInstanceOf(Stopped);
});

test('a failed review never leaves an old one in its place, and is asked for again on demand', async () => {
  (globalThis as { requestAnimationFrame?: unknown }).requestAnimationFrame ??= (run: () => void) => setTimeout(run, 0);
  globalThis.addEventListener ??= () => undefined;
  globalThis.removeEventListener ??= () => undefined;
  const moods: Mood[] = ['well', 'dies', 'dies', 'well'];
  const feed = new ReviewFeed([], () => fakeWorker(moods.shift()!));
  const until = async (met: () => boolean) => {
    for (let n = 0; n < 200 && !met(); n += 1) await new Promise((resolve) => setTimeout(resolve, 10));
    expect(met()).toBe(true);
  };
  feed.want(stick());
  await until(() => feed.current() !== null);
  // The one that answered dies before the next question.
  feed.close();
  const next = { ...stick(), name: 'Later' };
  feed.want(next);
  await until(() => feed.failure() !== null);
  expect(feed.current()).toBeNull();
  feed.retry();
  await until(() => feed.current()?.plan === next);
  expect(feed.failure()).toBeNull();
  feed.close();
});
