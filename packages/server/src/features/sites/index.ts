export { noSuchSite, siteChanged } from './refusals.ts';
export { siteHandlers } from './siteRoutes.ts';
export { type BringingIn, type SiteService, leftOutReply, makeSiteService, recordOf } from './siteService.ts';
