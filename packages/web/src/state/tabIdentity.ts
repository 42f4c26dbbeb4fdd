const KEY = 'roof-chart-tab';
const LOCK = 'roof-chart-tab/';

/** Web locks are there in secure contexts only; on a plain network address there are none. */
const locks = (): LockManager | undefined => globalThis.navigator?.locks;

/** Holds a lock for as long as the page lives. @returns whether it was free */
function hold(id: string): Promise<boolean> {
  const manager = locks();
  if (!manager) return Promise.resolve(true);
  return new Promise((resolve) => {
    void manager.request(LOCK + id, { ifAvailable: true }, (lock) => {
      resolve(lock !== null);
      // Never fulfilled: the browser gives the lock free when the page goes.
      return lock ? new Promise<never>(() => undefined) : undefined;
    });
  });
}

async function identify(): Promise<string> {
  const kept = globalThis.sessionStorage?.getItem(KEY);
  // A duplicated tab comes with the other's storage: it must not pass for it.
  if (kept && (await hold(kept))) return kept;
  const fresh = `tab-${crypto.randomUUID().slice(0, 8)}`;
  globalThis.sessionStorage?.setItem(KEY, fresh);
  await hold(fresh);
  return fresh;
}

let identity: Promise<string> | undefined;

/** The name of this tab: the same after a reload, another one in every other tab. */
export const tabId = (): Promise<string> => (identity ??= identify());

/** The names of the tabs that are open in this browser; null where the browser cannot tell. */
export async function openTabs(): Promise<ReadonlySet<string> | null> {
  const state = await locks()?.query();
  if (!state) return null;
  return new Set((state.held ?? []).flatMap(({ name }) => (name?.startsWith(LOCK) ? [name.slice(LOCK.length)] : [])));
}

/** The browser in words, for the history: "Chromium on Linux". */
export function deviceName(): string {
  const { userAgent = '' } = globalThis.navigator ?? {};
  const find = (table: readonly (readonly [RegExp, string])[], other: string) => table.find(([sign]) => sign.test(userAgent))?.[1] ?? other;
  const browser = find(
    [
      [/Firefox\//, 'Firefox'],
      [/Edg\//, 'Edge'],
      [/Chrom(e|ium)\//, 'Chromium'],
      [/Safari\//, 'Safari'],
    ],
    'Browser',
  );
  const system = find(
    [
      [/Android/, 'Android'],
      [/iPhone|iPad/, 'iOS'],
      [/Windows/, 'Windows'],
      [/Mac OS X/, 'macOS'],
      [/Linux/, 'Linux'],
    ],
    'another system',
  );
  return `${browser} on ${system}`;
}
