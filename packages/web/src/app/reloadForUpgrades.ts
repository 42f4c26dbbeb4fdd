const KEY = 'roof-chart-reloaded-at';
const AGAIN_MS = 60_000;

/** A tab of before an upgrade asks for parts of the application that are not there any more: it reloads itself once its
 *  edits are kept. At most once a minute, so that a part that is really missing does not make it reload for ever.
 *  @param kept resolves when everything is in the browser's storage
 *  @returns stops it */
export function reloadForUpgrades(kept: () => Promise<void>): () => void {
  const reload = (event: Event) => {
    const last = Number(sessionStorage.getItem(KEY) ?? 0);
    if (Date.now() - last < AGAIN_MS) return;
    event.preventDefault();
    sessionStorage.setItem(KEY, String(Date.now()));
    void kept().finally(() => location.reload());
  };
  addEventListener('vite:preloadError', reload);
  return () => removeEventListener('vite:preloadError', reload);
}
