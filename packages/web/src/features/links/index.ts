export { LinksStation } from './LinksStationLazy.tsx';
export { isAboutLinks } from './linkGrid.ts';
