import { lazyPart } from '../../ui/lazyPart.ts';

/** Fetched apart: the first script stays small. */
export const LinksStation = lazyPart(async () => (await import('./LinksStation.tsx')).LinksStation);
