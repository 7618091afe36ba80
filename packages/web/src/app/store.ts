import { configureStore, type Action, type ThunkAction } from '@reduxjs/toolkit';
import { draftsSlice } from '../features/drafts/draftsSlice.ts';
import { gatherSlice } from '../features/gather/gatherSlice.ts';
import { api } from './api.ts';

/** What thunks share that no reducer knows. */
export interface Extra {
  /** By site: the last change of its draft that is under way. */
  readonly turns: Map<string, Promise<void>>;
}

export const makeStore = () =>
  configureStore({
    reducer: { [api.reducerPath]: api.reducer, drafts: draftsSlice.reducer, gather: gatherSlice.reducer },
    middleware: (defaults) =>
      defaults({
        serializableCheck: false,
        immutableCheck: false,
        thunk: { extraArgument: { turns: new Map() } satisfies Extra },
      }).concat(api.middleware),
  });

export type AppStore = ReturnType<typeof makeStore>;
export type RootState = ReturnType<AppStore['getState']>;
export type AppDispatch = AppStore['dispatch'];
export type AppThunk<Result> = ThunkAction<Result, RootState, Extra, Action>;
