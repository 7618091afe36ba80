export { useDraft, type DraftInHand } from './useDraft.ts';
export {
  useDraftQuery,
  useDraftProofQuery,
  useDropDraftMutation,
  useProposeMutation,
  useSaveMutation,
} from './draftsApi.ts';
