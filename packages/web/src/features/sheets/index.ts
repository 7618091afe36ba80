export { SheetsStation } from './SheetsStationLazy.tsx';
export { useSheetTextQuery } from './sheetsApi.ts';
