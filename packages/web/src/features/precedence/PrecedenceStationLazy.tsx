import { lazy } from 'react';

/** Fetched when it is opened: the first script stays small. */
export const PrecedenceStation = lazy(() =>
  import('./PrecedenceStation.tsx').then((m) => ({ default: m.PrecedenceStation })),
);
