import { deviceName, openTabs, tabId } from './tabIdentity';

/** A browser's locks that several tabs share: a lock is held until its tab is gone. */
function sharedLocks() {
  const held = new Set<string>();
  return {
    held,
    request: (name: string, _: object, work: (lock: object | null) => unknown) => {
      const free = !held.has(name);
      if (free) held.add(name);
      return Promise.resolve(work(free ? { name } : null));
    },
    query: () => Promise.resolve({ held: [...held].map((name) => ({ name })) }),
  };
}

const memory = (kept: Record<string, string> = {}) => ({
  kept,
  getItem: (key: string) => kept[key] ?? null,
  setItem: (key: string, value: string) => void (kept[key] = value),
});

const set = (name: string, value: unknown) => Object.defineProperty(globalThis, name, { value, configurable: true, writable: true });
const before = { navigator: globalThis.navigator, sessionStorage: globalThis.sessionStorage };
afterEach(() => {
  for (const [name, value] of Object.entries(before)) set(name, value);
});

/** A tab of a browser: the page is loaded anew, its storage stays. */
async function tabWith(storage: ReturnType<typeof memory>, locks?: object): Promise<string> {
  set('navigator', { userAgent: '', locks });
  set('sessionStorage', storage);
  let id = '';
  await jest.isolateModulesAsync(async () => {
    id = await (await import('./tabIdentity')).tabId();
  });
  return id;
}

test('a tab keeps its name over a reload, and one that is duplicated from it gets its own', async () => {
  const locks = sharedLocks();
  const storage = memory();
  const first = await tabWith(storage, locks);
  expect(first).toMatch(/^tab-[0-9a-f]{8}$/);
  const copied = memory({ ...storage.kept });
  const duplicate = await tabWith(copied, locks);
  expect(duplicate).not.toBe(first);
  expect(Object.values(copied.kept)).toEqual([duplicate]);
  // The page goes, and with it its lock.
  locks.held.delete(`roof-chart-tab/${first}`);
  expect(await tabWith(storage, locks)).toBe(first);
});

test('without locks, on a plain network address, the name is the kept one', async () => {
  const storage = memory({ 'roof-chart-tab': 'tab-00000001' });
  expect(await tabWith(storage)).toBe('tab-00000001');
});

test('one page asks for its name once', async () => {
  expect(await tabId()).toBe(await tabId());
});

test('the open tabs are those that hold a lock of ours; nothing is said where the browser cannot tell', async () => {
  const locks = sharedLocks();
  for (const name of ['roof-chart-tab/tab-1', 'roof-chart-tab/tab-2', 'of another program']) locks.held.add(name);
  set('navigator', { locks });
  expect(await openTabs()).toEqual(new Set(['tab-1', 'tab-2']));
  set('navigator', {});
  expect(await openTabs()).toBeNull();
});

test.each([
  ['Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0', 'Firefox on Linux'],
  ['Mozilla/5.0 (Windows NT 10.0) AppleWebKit/537.36 Chrome/140.0.0.0 Safari/537.36 Edg/140.0', 'Edge on Windows'],
  ['Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 Chrome/140.0.0.0 Safari/537.36', 'Chromium on Linux'],
  ['Mozilla/5.0 (X11; Linux) Chromium/140.0 Safari/537.36', 'Chromium on Linux'],
  ['Mozilla/5.0 (Macintosh; Intel Mac OS X 10_15_7) AppleWebKit/605 Version/18 Safari/605', 'Safari on macOS'],
  ['Mozilla/5.0 (iPhone; CPU iPhone OS 18_0 like Mac OS X) Version/18 Safari/604', 'Safari on iOS'],
  ['Mozilla/5.0 (Linux; Android 15) AppleWebKit/537.36 Chrome/140.0.0.0 Mobile Safari/537.36', 'Chromium on Android'],
  ['something else', 'Browser on another system'],
])('%s', (userAgent, name) => {
  set('navigator', { userAgent });
  expect(deviceName()).toBe(name);
});
