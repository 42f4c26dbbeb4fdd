import { stick } from '../../../core/tests/makePlan';
import { fakeWorker, type Mood, started } from '../../tests/fakeWorker';
import { Stopped, WorkerFailed, RestartableWorker } from './restartableWorker';

const workerOf = (...moods: Mood[]) => {
  let at = 0;
  return new RestartableWorker({ sheets: [], limitMs: 400, makeWorker: () => fakeWorker(moods[Math.min(at++, moods.length - 1)]!) });
};
const ask = (worker: RestartableWorker) => worker.ask((reviewer) => reviewer.review(stick()) as Promise<unknown>);

test('a worker that answers is kept', async () => {
  const worker = workerOf('well');
  expect([await ask(worker), await ask(worker), started]).toEqual(['reviewed', 'reviewed', ['well']]);
  worker.stop();
});

test.each(['stuck', 'dies'] as const)('a worker that is %s is replaced once, and the question asked again', async (mood) => {
  const worker = workerOf(mood, 'well');
  expect([await ask(worker), started]).toEqual(['reviewed', [mood, 'well']]);
  worker.stop();
});

test('a second failure is told; stopping is no failure', async () => {
  await expect(ask(workerOf('stuck', 'dies'))).rejects.toBeInstanceOf(WorkerFailed);
  const worker = workerOf('stuck');
  const asked = ask(worker);
  worker.stop();
  await expect(asked).rejects.toBeInstanceOf(Stopped);
});
