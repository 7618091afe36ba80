import { lazyPart } from '../../ui/lazyPart.ts';

/** Fetched apart: the first script stays small. */
export const SurveyStation = lazyPart(async () => (await import('./SurveyStation.tsx')).SurveyStation);
