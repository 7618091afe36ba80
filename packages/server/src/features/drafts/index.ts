export { draftHandlers } from './draftRoutes.ts';
export { type DraftService, makeDraftService } from './draftService.ts';
