export {
  useBringBackSiteMutation,
  useBringInMutation,
  useCompareOutsideMutation,
  useImportsQuery,
  useLoadDemoMutation,
  usePutInMutation,
  useRemoveSiteMutation,
  useRenameSiteMutation,
  useRestoreRevisionMutation,
  useSiteQuery,
  useSitesQuery,
  useStopImportMutation,
  useReadAsPagesMutation,
  useTakeInMutation,
  useTakeOutMutation,
  useTakeOutsideMutation,
} from './sitesApi.ts';
export { useFollowedImports } from './useFollowedImports.ts';
export {
  useAttributesQuery,
  useFamiliesQuery,
  useMarkupQuery,
  usePageBandsQuery,
  useSurveyQuery,
} from './surveyApi.ts';
export { presentationalBytes } from './presentationalBytes.ts';
export { stationNames, stationTitle, type StationName } from './stations.ts';
export { useSiteView, type Asked, type SiteView } from './useSiteView.ts';
export { FilesChanged } from './FilesChanged.tsx';
export { LeftOutList } from './LeftOutList.tsx';
export { leftOutWords } from './leftOutWords.ts';
export { filesOfChooser, filesOfDrop, packFiles, type DroppedFile } from './packFiles.ts';
export {
  canOpenFolder,
  chooseFolder,
  filesOfFolder,
  folderOfSite,
  readFrom,
  rememberFolder,
  writeInto,
  type WorkFolder,
} from './workFolder.ts';
export { folderBackups, type FileBefore, type FolderBackups } from './folderBackups.ts';
