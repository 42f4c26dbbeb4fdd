import { awaited, isCodeAwaited, loaded } from './loaded';

test('a module passes, and so does the error of its import', async () => {
  await expect(loaded(Promise.resolve({ LevelsView: 1 }))).resolves.toEqual({ LevelsView: 1 });
  await expect(loaded(Promise.reject(new Error('offline')))).rejects.toThrow('offline');
});

test('an import that ends without a module keeps its view waiting for the reload', async () => {
  const waiting = loaded(Promise.resolve(undefined)).then(() => 'shown');
  await expect(Promise.race([waiting, new Promise((done) => setTimeout(() => done('waiting'), 20))])).resolves.toBe('waiting');
});

test('what is to be shown now is awaited until its code is there or has failed; what is loaded ahead is not', async () => {
  void loaded(new Promise(() => undefined));
  expect(isCodeAwaited()).toBe(false);
  const shown = awaited(() => Promise.resolve('view'));
  expect(isCodeAwaited()).toBe(true);
  await expect(shown).resolves.toEqual({ default: 'view' });
  expect(isCodeAwaited()).toBe(false);
  await expect(awaited(() => Promise.reject(new Error('offline')))).rejects.toThrow('offline');
  expect(isCodeAwaited()).toBe(false);
});
