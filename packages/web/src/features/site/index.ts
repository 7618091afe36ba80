export {
  useBringInMutation,
  useLoadDemoMutation,
  useRestoreRevisionMutation,
  useSiteQuery,
  useSitesQuery,
} from './sitesApi.ts';
export { useFamiliesQuery, useSurveyQuery } from './surveyApi.ts';
export { stationNames, stationTitle, type StationName } from './stations.ts';
export { useSiteView, type SiteView } from './useSiteView.ts';
