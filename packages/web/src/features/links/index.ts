export { LinksStation } from './lazyStation.ts';
export { isAboutLinks } from './linkGrid.ts';
