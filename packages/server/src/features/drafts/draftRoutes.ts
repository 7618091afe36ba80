import type { Handlers } from '../../http/router.ts';
import type { DraftService } from './draftService.ts';

type Names =
  | 'readDraft'
  | 'replaceDraft'
  | 'dropDraft'
  | 'redoDraft'
  | 'readProof'
  | 'followProof'
  | 'followDraft'
  | 'tryOperations'
  | 'fitRecipe'
  | 'propose'
  | 'followProposal'
  | 'saveDraft';

export function draftHandlers(drafts: DraftService): Handlers<Names> {
  return {
    readDraft: ({ params }) => drafts.read(params.id),
    replaceDraft: ({ params, body }) => drafts.replace(params.id, body),
    dropDraft: ({ params, query }) => drafts.drop(params.id, query.version),
    redoDraft: ({ params, body }) => drafts.redo(params.id, body.redo),
    readProof: ({ params }) => drafts.proof(params.id),
    followDraft: ({ params }) => drafts.follow(params.id),
    followProof: ({ params }) => drafts.followProof(params.id),
    tryOperations: ({ params, body }, { signal }) => drafts.tryOperations(params.id, body, signal),
    fitRecipe: ({ params, body }, { signal }) => drafts.fitRecipe(params.id, body, signal),
    propose: ({ params, body }, { signal }) => drafts.propose(params.id, body, signal),
    followProposal: ({ params }) => drafts.followProposal(params.id),
    saveDraft: ({ params, body }) => drafts.save(params.id, body),
  };
}
