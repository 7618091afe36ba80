export { HandoffStation } from './HandoffStation.tsx';
