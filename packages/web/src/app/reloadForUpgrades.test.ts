/** @jest-environment jsdom */
import { awaited } from './loaded';
import { reloadForUpgrades } from './reloadForUpgrades';

const failed = () => {
  const event = new Event('vite:preloadError', { cancelable: true });
  dispatchEvent(event);
  return event.defaultPrevented;
};
let reloads = 0;
beforeEach(() => {
  reloads = 0;
  sessionStorage.clear();
  jest.useFakeTimers();
});
afterEach(() => jest.useRealTimers());

const watching = (kept: () => Promise<void>, answers: () => Promise<boolean>) =>
  reloadForUpgrades(kept, answers, () => {
    reloads += 1;
  });

test('a file that was loaded ahead and cannot be had changes nothing', async () => {
  const stop = watching(
    () => Promise.resolve(),
    () => Promise.resolve(true),
  );
  expect(failed()).toBe(true);
  await jest.advanceTimersByTimeAsync(10_000);
  expect(reloads).toBe(0);
  stop();
});

test('one that is to be shown reloads the tab, once its edits are kept and the server answers, and once in a minute', async () => {
  let [isKept, isUp] = [() => undefined as void, false];
  const kept = new Promise<void>((resolve) => (isKept = resolve));
  const stop = watching(
    () => kept,
    () => Promise.resolve(isUp),
  );
  void awaited(() => new Promise(() => undefined));
  expect(failed()).toBe(true);
  await jest.advanceTimersByTimeAsync(10_000);
  expect(reloads).toBe(0);
  isKept();
  await jest.advanceTimersByTimeAsync(10_000);
  expect(reloads).toBe(0);
  isUp = true;
  await jest.advanceTimersByTimeAsync(2000);
  expect(reloads).toBe(1);
  // Again at once it is a file that is really missing: its view says so.
  expect(failed()).toBe(false);
  await jest.advanceTimersByTimeAsync(60_000);
  expect(failed()).toBe(true);
  stop();
  expect(failed()).toBe(false);
});
