export { revisionHandlers } from './revisionRoutes.ts';
export { makeRevisionService } from './revisionService.ts';
export { revisionNumber } from './revisionNumber.ts';
export type { RevisionService } from './revisionService.ts';
