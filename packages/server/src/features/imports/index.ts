export { makeImportJob } from './importJob.ts';
export { importHandlers } from './importRoutes.ts';
export { makeImportService } from './importService.ts';
