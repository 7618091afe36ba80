export { useDraft, type DraftInHand } from './useDraft.ts';
export type { DraftChange } from './draftCommands.ts';
export type { DraftProblem } from './draftsSlice.ts';
export { useDraftQuery, useDraftProofQuery, useProposeMutation } from './draftsApi.ts';
