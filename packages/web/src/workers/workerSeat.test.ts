import { stick } from '../../../core/tests/makePlan';
import { fakeWorker, type Mood, started } from '../../tests/fakeWorker';
import { Stopped, WorkerFailed, WorkerSeat } from './workerSeat';

const seatOf = (...moods: Mood[]) => {
  let at = 0;
  return new WorkerSeat({ sheets: [], limitMs: 400, makeWorker: () => fakeWorker(moods[Math.min(at++, moods.length - 1)]!) });
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
