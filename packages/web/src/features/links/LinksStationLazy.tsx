import { lazy } from 'react';

/** Fetched when it is opened: the first script stays small. */
export const LinksStation = lazy(() => import('./LinksStation.tsx').then((m) => ({ default: m.LinksStation })));
