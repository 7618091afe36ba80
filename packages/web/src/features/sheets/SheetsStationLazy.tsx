import { lazy } from 'react';

/** The editor is large: it comes when the station is first opened. */
export const SheetsStation = lazy(() => import('./SheetsStation.tsx').then((m) => ({ default: m.SheetsStation })));
