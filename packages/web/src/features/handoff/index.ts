export { HandoffStation } from './HandoffStationLazy.tsx';
