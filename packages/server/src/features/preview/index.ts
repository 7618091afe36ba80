export { leadBackToPreview, previewRoutes } from './previewRoutes.ts';
