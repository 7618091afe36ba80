export { SheetsStation } from './lazyStation.ts';
export { useSheetTextQuery } from './sheetsApi.ts';
export { useUnfinishedSheets } from './unfinished.ts';
