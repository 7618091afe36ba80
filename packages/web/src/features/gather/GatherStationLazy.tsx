import { lazy } from 'react';

/** Fetched when it is opened: the first script stays small. */
export const GatherStation = lazy(() => import('./GatherStation.tsx').then((m) => ({ default: m.GatherStation })));
