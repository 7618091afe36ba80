export { ChangedTexts, RevisionTexts } from './ChangedTextsLazy.tsx';
export type { TextsBetween } from './ChangedTexts.tsx';
