import { lazyPart } from '../../ui/lazyPart.ts';

/** Fetched apart: the first script stays small. */
export const PrecedenceStation = lazyPart(async () => (await import('./PrecedenceStation.tsx')).PrecedenceStation);
