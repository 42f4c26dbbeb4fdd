import type { Logger } from 'pino';
import { dailyBackups } from '../safety/backups';
import type { OpenDatabase } from '../store/database';
import { compactLog, KEPT_EDITS } from '../store/planLog';
import type { PlanStore } from '../store/planStore';
import type { SheetRepository } from '../store/sheetRepository';

/** Interval for checking whether a backup is due. */
const EVERY_MS = 30 * 60 * 1000;

export interface MaintenanceParts {
  readonly database: OpenDatabase;
  readonly store: PlanStore;
  readonly shelf: SheetRepository;
  readonly log: Logger;
  /** Folders for the daily backup. */
  readonly folders: readonly string[];
}

/** Plans whose log is longer than what is kept whole. */
function longLogs({ connection }: OpenDatabase): readonly string[] {
  return connection
    .prepare("SELECT plan_id FROM batches WHERE edits <> '' GROUP BY plan_id HAVING count(*) > ?")
    .pluck()
    .all(2 * KEPT_EDITS) as string[];
}

/** What is done once a day: backups, and logs shortened where the shorter one is proved to give the same plan. A failure is
 *  logged and does not stop the server. */
async function maintain({ database, store, shelf, log, folders }: MaintenanceParts, now: Date): Promise<void> {
  for (const failure of await dailyBackups(database.connection, folders, now)) log.warn(failure);
  for (const planId of longLogs(database)) {
    try {
      const batches = compactLog(store.transactions, planId, shelf.current);
      log.info({ planId, batches }, 'log compacted');
    } catch (error) {
      log.warn({ err: error, planId }, 'log not compacted');
    }
  }
}

/** Maintains at once and then for as long as the server runs. */
export function startMaintenance(parts: MaintenanceParts): { stop(): Promise<void> } {
  const run = () => maintain(parts, new Date()).catch((error: unknown) => parts.log.warn({ err: error }, 'maintenance failed'));
  let running = run();
  const timer = setInterval(() => {
    running = running.then(run);
  }, EVERY_MS);
  timer.unref();
  return {
    stop: async () => {
      clearInterval(timer);
      await running;
    },
  };
}
