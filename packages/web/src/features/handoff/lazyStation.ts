import { lazyPart } from '../../ui/lazyPart.ts';

/** Fetched apart: the first script stays small. */
export const HandoffStation = lazyPart(async () => (await import('./HandoffStation.tsx')).HandoffStation);
