export { NotHere } from './NotHere.tsx';
export { SiteFrame } from './SiteFrame.tsx';
