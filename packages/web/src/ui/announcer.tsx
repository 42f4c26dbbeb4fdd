import { useCallback } from 'react';
import { sessionActions } from '../state/sessionSlice';
import { useAppDispatch, useAppSelector } from '../state/store';
import styles from './announcer.module.css';

/** @returns announces a change to screen readers */
export function useAnnounce(): (text: string) => void {
  const dispatch = useAppDispatch();
  return useCallback((text: string) => void dispatch(sessionActions.announced(text)), [dispatch]);
}

export function Announcer() {
  const text = useAppSelector((state) => state.session.announcement);
  return (
    <div aria-live="polite" role="status" className={styles.hidden}>
      {text}
    </div>
  );
}
