export { makeUploadService, type UploadService } from './uploadService.ts';
export { uploadHandlers } from './uploadRoutes.ts';
