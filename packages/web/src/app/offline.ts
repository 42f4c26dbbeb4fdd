import { keepOffline } from '../workers/keepOffline';
import { offerNewVersion } from './offerNewVersion';

let settled: () => Promise<void> = () => Promise.resolve();
let keeping: Promise<boolean> | undefined;

/** Keeps the application in this browser, once for as long as the page is open. `npm run dev` has nothing to keep.
 *  @param editsKept resolves when all edits are in the browser's storage: a new version waits for it */
export function startOffline(editsKept: () => Promise<void>): void {
  settled = editsKept;
  keeping ??= import.meta.env.PROD ? keepOffline((change) => offerNewVersion(() => void settled().then(change))) : Promise.resolve(false);
}

/** Whether the application is kept in this browser, or about to be. */
export const isKeptOffline = (): Promise<boolean> => keeping ?? Promise.resolve(false);
