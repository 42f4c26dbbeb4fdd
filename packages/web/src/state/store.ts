import {
  addListener,
  configureStore,
  createListenerMiddleware,
  type ThunkAction,
  type ThunkDispatch,
  type UnknownAction,
} from '@reduxjs/toolkit';
import { useDispatch, useSelector } from 'react-redux';
import type { Plan } from '@roof-chart/core/plan/plan';
import { api } from './api';
import { documentSlice } from './documentSlice';
import { guideActions, guideSlice, writeGuide } from './guideSlice';
import { reviewSlice } from './reviewSlice';
import { sessionSlice } from './sessionSlice';

/** A store of its own. Saving, the browser's copy and reviews listen to it once the sheets are loaded. */
export function createStore() {
  const { middleware, startListening } = createListenerMiddleware();
  startListening({ actionCreator: guideActions.guideStarted, effect: ({ payload }) => writeGuide(payload) });
  startListening({ actionCreator: guideActions.guideLeft, effect: () => writeGuide(null) });
  return configureStore({
    reducer: {
      document: documentSlice.reducer,
      session: sessionSlice.reducer,
      review: reviewSlice.reducer,
      guide: guideSlice.reducer,
      [api.reducerPath]: api.reducer,
    },
    middleware: (defaults) => defaults({ serializableCheck: false, immutableCheck: false }).prepend(middleware).concat(api.middleware),
  });
}

export type Store = ReturnType<typeof createStore>;
export type RootState = ReturnType<Store['getState']>;
/** What is dispatched as a function and gives a result. */
export type AppThunk<R> = ThunkAction<R, RootState, unknown, UnknownAction>;
type AppDispatch = ThunkDispatch<RootState, unknown, UnknownAction>;

export const useAppDispatch = useDispatch.withTypes<Store['dispatch']>();
export const useAppSelector = useSelector.withTypes<RootState>();
export const addAppListener = addListener.withTypes<RootState, AppDispatch>();

/** The plan that is open. Views are drawn within one; elsewhere there may be none.
 *  @throws Error where no plan is open */
export function useOpenPlan(): Plan {
  const plan = useAppSelector((state) => state.document.plan);
  if (!plan) throw new Error('useOpenPlan: no plan is open');
  return plan;
}
