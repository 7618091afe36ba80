import { lazyPart } from '../../ui/lazyPart.ts';

/** Fetched apart: the first script stays small. */
export const SheetsStation = lazyPart(async () => (await import('./SheetsStation.tsx')).SheetsStation);
