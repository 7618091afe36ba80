import { lazyPart } from '../../ui/lazyPart.ts';

/** Fetched apart: the first script stays small. */
export const GatherStation = lazyPart(async () => (await import('./GatherStation.tsx')).GatherStation);
