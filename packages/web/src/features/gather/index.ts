export { GatherStation } from './GatherStationLazy.tsx';
