import { configureStore } from '@reduxjs/toolkit';
import { useDispatch, useSelector } from 'react-redux';
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
