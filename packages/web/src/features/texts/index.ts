export { ChangedTexts, RevisionTexts, TextDiff } from './ChangedTextsLazy.tsx';
export type { TextsBetween } from './ChangedTexts.tsx';
