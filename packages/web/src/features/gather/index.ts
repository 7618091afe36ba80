export { GatherStation } from './lazyStation.ts';
