export { StartPage } from './StartPage.tsx';
