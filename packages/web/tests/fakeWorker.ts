import { expose } from 'comlink';
import { MessageChannel, type MessagePort } from 'node:worker_threads';
import nodeEndpoint from 'comlink/dist/umd/node-adapter';
import type { WorkerLike } from '../src/workers/restartableWorker';

/** What becomes of a question. */
export type Mood = 'well' | 'stuck' | 'dies';
/** The workers that this test has started. */
export const started: Mood[] = [];
const ports: MessagePort[] = [];
afterEach(() => {
  for (const port of ports.splice(0)) port.close();
  started.length = 0;
});

/** A worker of another thread in this one: answers, never answers, or dies when it is asked. */
export function fakeWorker(mood: Mood): WorkerLike {
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
