export { useAskedFirst } from './useAskedFirst.tsx';
export { useDraft, type DraftInHand } from './useDraft.ts';
export type { DraftChange } from './draftCommands.ts';
export type { DraftProblem } from './draftsSlice.ts';
export { askEffect, useDraftQuery, useDraftProofQuery, useEffectQuery, useProposeMutation } from './draftsApi.ts';
