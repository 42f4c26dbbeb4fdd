import { configureStore } from '@reduxjs/toolkit';
import { useDispatch, useSelector } from 'react-redux';
import type { Plan } from '@roof-chart/core/plan/plan';
import { api } from './api';
import { documentSlice } from './documentSlice';
import { sessionSlice } from './sessionSlice';

export function createStore() {
  return configureStore({
    reducer: { document: documentSlice.reducer, session: sessionSlice.reducer, [api.reducerPath]: api.reducer },
    middleware: (defaults) => defaults({ serializableCheck: false, immutableCheck: false }).concat(api.middleware),
  });
}

export type Store = ReturnType<typeof createStore>;
export type RootState = ReturnType<Store['getState']>;
export const useAppDispatch = useDispatch.withTypes<Store['dispatch']>();
export const useAppSelector = useSelector.withTypes<RootState>();

/** The plan that is open. Views are drawn within one; elsewhere there may be none.
 *  @throws Error where no plan is open */
export function useOpenPlan(): Plan {
  const plan = useAppSelector((state) => state.document.plan);
  if (!plan) throw new Error('useOpenPlan: no plan is open');
  return plan;
}
