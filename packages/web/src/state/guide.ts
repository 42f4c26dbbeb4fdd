import { useSyncExternalStore } from 'react';

/** Where the browser keeps which plan is the guided example. */
const KEY = 'roof-chart-guide';
const listeners = new Set<() => void>();

/** Storage may be forbidden: then there is no guide after a reload, and nothing else is lost. */
function read(): string | null {
  try {
    return localStorage.getItem(KEY);
  } catch {
    return null;
  }
}

let planId = read();

function set(next: string | null): void {
  planId = next;
  try {
    if (next === null) localStorage.removeItem(KEY);
    else localStorage.setItem(KEY, next);
  } catch {
    // Kept for this page alone.
  }
  for (const listener of listeners) listener();
}

/** From now on a plan is the guided example. */
export const startGuide = (id: string): void => set(id);

/** The plan stays as it is, without its guide. */
export const leaveGuide = (): void => set(null);

/** The plan that is the guided example, if any. */
export const useGuide = (): string | null =>
  useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => planId,
  );
