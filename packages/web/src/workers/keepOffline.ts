import { type PageMessage, SERVER_CACHE, type WorkerAnswer } from './offlineMessages';

const HOUR_MS = 3_600_000;

/** The script that this page runs, by which a new version knows whether it is its own. */
const ownScript = (): string =>
  new URL(document.querySelector<HTMLScriptElement>('script[type=module]')?.src ?? '', location.href).pathname;

const tell = (worker: ServiceWorker, message: PageMessage, transfer: Transferable[] = []): void => worker.postMessage(message, transfer);

function isOwnVersion(worker: ServiceWorker): Promise<boolean> {
  return new Promise((resolve) => {
    const { port1, port2 } = new MessageChannel();
    port1.addEventListener('message', (event: MessageEvent<WorkerAnswer>) => resolve(event.data.isSame), { once: true });
    port1.start();
    tell(worker, { kind: 'compare', script: ownScript() }, [port2]);
  });
}

/** Calls back with each version that is installed and waits, now and later. */
function onWaiting(registration: ServiceWorkerRegistration, found: (worker: ServiceWorker) => void): void {
  if (registration.waiting) found(registration.waiting);
  registration.addEventListener('updatefound', () => {
    const { installing } = registration;
    installing?.addEventListener('statechange', () => {
      // The first one has nothing to wait for.
      if (installing.state === 'installed' && registration.active) found(installing);
    });
  });
}

/** Reloads the page under a new version once it has taken over. */
function reloadUnder(container: ServiceWorkerContainer, worker: ServiceWorker, reloadPage: () => void): void {
  container.addEventListener('controllerchange', reloadPage, { once: true });
  tell(worker, { kind: 'take-over' });
}

/** Keeps the application in the browser, so that it starts without the server. Browsers do this on this machine and over TLS alone.
 *  @param announce of a newer version, with what changes to it
 *  @returns whether it is kept: else its code is to be loaded ahead, for as long as the tab is open */
export async function keepOffline(
  announce: (change: () => void) => void,
  container: ServiceWorkerContainer | undefined = navigator.serviceWorker,
  reloadPage = () => location.reload(),
): Promise<boolean> {
  if (!container) return false;
  try {
    const registration = await container.register('/service-worker.js', { updateViaCache: 'none' });
    // A test may take the place of the browser's registration with none.
    if (!registration) return true;
    onWaiting(registration, (worker) => {
      void isOwnVersion(worker).then((isOwn) => {
        if (!isOwn) announce(() => reloadUnder(container, worker, reloadPage));
      });
    });
    setInterval(() => void registration.update().catch(() => undefined), HOUR_MS);
    return true;
  } catch {
    return false;
  }
}

/** Forgets the lists that belong to a session which has ended. */
export const forgetServerCache = async (): Promise<void> => {
  if ('caches' in globalThis) await caches.delete(SERVER_CACHE);
};
