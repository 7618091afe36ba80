import { lazy } from 'react';

/** Fetched when it is opened: the first script stays small. */
export const HandoffStation = lazy(() => import('./HandoffStation.tsx').then((m) => ({ default: m.HandoffStation })));
