export { HandoffStation } from './lazyStation.ts';
