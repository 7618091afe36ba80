export { sheetHandlers } from './sheetRoutes.ts';
