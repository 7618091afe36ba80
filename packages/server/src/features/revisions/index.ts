export { revisionHandlers } from './revisionRoutes.ts';
export { makeRevisionService } from './revisionService.ts';
