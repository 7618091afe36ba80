import { lazy } from 'react';

/** Fetched when it is opened: the first script stays small. */
export const ProofStation = lazy(() => import('./ProofStation.tsx').then((m) => ({ default: m.ProofStation })));
