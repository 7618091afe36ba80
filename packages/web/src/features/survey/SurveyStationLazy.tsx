import { lazy } from 'react';

/** The chart's library is large: it comes when the station is first opened. */
export const SurveyStation = lazy(() => import('./SurveyStation.tsx').then((m) => ({ default: m.SurveyStation })));
