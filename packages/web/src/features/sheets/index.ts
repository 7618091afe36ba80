export { SheetsStation } from './SheetsStationLazy.tsx';
