export { SiteFrame } from './SiteFrame.tsx';
