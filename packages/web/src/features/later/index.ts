export { LaterStation } from './LaterStation.tsx';
