import { configureStore } from '@reduxjs/toolkit';
import { gatherSlice } from '../features/gather/gatherSlice.ts';
import { api } from './api.ts';

export const makeStore = () =>
  configureStore({
    reducer: { [api.reducerPath]: api.reducer, gather: gatherSlice.reducer },
    middleware: (defaults) => defaults({ serializableCheck: false, immutableCheck: false }).concat(api.middleware),
  });

export type AppStore = ReturnType<typeof makeStore>;
export type RootState = ReturnType<AppStore['getState']>;
export type AppDispatch = AppStore['dispatch'];
