export { precedenceHandlers } from './precedenceRoutes.ts';
