import { lazyPart } from '../../ui/lazyPart.ts';

/** Fetched apart: the first script stays small. */
export const ProofStation = lazyPart(async () => (await import('./ProofStation.tsx')).ProofStation);
