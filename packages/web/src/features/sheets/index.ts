export { SheetsStation } from './SheetsStationLazy.tsx';
export { useSheetTextQuery } from './sheetsApi.ts';
export { useUnfinishedSheets } from './unfinished.ts';
