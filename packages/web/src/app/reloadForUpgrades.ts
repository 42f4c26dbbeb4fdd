const KEY = 'roof-chart-reloaded-at';
const AGAIN_MS = 60_000;

/** A tab from before an upgrade requests files that no longer exist: it reloads itself once its edits are stored. At most once per
 *  minute, so that a file that is really missing does not cause a reload loop.
 *  @param kept resolves when everything is stored in the browser
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
