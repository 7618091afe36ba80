export { PageStation } from './PageStation.tsx';
