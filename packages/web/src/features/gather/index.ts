export { GatherStation } from './GatherStation.tsx';
