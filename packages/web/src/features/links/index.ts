export { LinksStation } from './LinksStation.tsx';
export { isAboutLinks } from './linkGrid.ts';
