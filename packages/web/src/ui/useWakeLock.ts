import { useEffect, useState } from 'react';

/** Keeps the screen on while a view is shown. Browsers release the lock when the page is hidden; it is requested again afterwards.
 *  @returns whether the screen stays on: not every browser, and not every battery, allows it */
export function useWakeLock(): boolean {
  const [isOn, setOn] = useState(false);
  useEffect(() => {
    let lock: WakeLockSentinel | undefined;
    let isGone = false;
    const ask = async () => {
      if (!('wakeLock' in navigator) || document.visibilityState !== 'visible' || (lock && !lock.released)) return;
      try {
        const got = await navigator.wakeLock.request('screen');
        if (isGone) return void got.release();
        lock = got;
        setOn(true);
        got.addEventListener('release', () => setOn(false));
      } catch {
        // A low battery or a policy: the screen goes off as always.
        setOn(false);
      }
    };
    const onVisible = () => void ask();
    void ask();
    document.addEventListener('visibilitychange', onVisible);
    return () => {
      isGone = true;
      document.removeEventListener('visibilitychange', onVisible);
      void lock?.release();
    };
  }, []);
  return isOn;
}
