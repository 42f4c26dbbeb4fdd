import { isCodeAwaited } from './loaded';

const KEY = 'roof-chart-reloaded-at';
const AGAIN_MS = 60_000;
const ASK_MS = 2000;

/** Asks until the server answers: a reload before that would leave an empty page. */
async function untilAnswered(answers: () => Promise<boolean>): Promise<void> {
  while (!(await answers())) await new Promise((resolve) => setTimeout(resolve, ASK_MS));
}

/** A tab from before an upgrade has files that no longer exist: it reloads itself once its edits are stored and the server answers. At
 *  most once per minute, so that a file that is really missing does not cause a reload loop. Code that was only loaded ahead is requested
 *  again when it is needed.
 *  @param kept resolves when everything is stored in the browser
 *  @param answers whether the server answers
 *  @returns stops it */
export function reloadForUpgrades(
  kept: () => Promise<void>,
  answers: () => Promise<boolean>,
  reloadPage = () => location.reload(),
): () => void {
  const reload = (event: Event) => {
    if (!isCodeAwaited()) return event.preventDefault();
    const last = Number(sessionStorage.getItem(KEY) ?? 0);
    if (Date.now() - last < AGAIN_MS) return;
    event.preventDefault();
    sessionStorage.setItem(KEY, String(Date.now()));
    void kept()
      .then(() => untilAnswered(answers))
      .finally(reloadPage);
  };
  addEventListener('vite:preloadError', reload);
  return () => removeEventListener('vite:preloadError', reload);
}
