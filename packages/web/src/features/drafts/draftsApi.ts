import type {
  DraftBodyRequest,
  DraftProofReply,
  DraftReply,
  EffectReply,
  EffectRequest,
  PlanSettingsRequest,
  ProposalReply,
  SavedRevisionReply,
  SaveRequest,
} from '@syndeton/contract';
import { api, draftTags, isConflict, requestFor, revisionTags, tagsOf } from '../../app/api.ts';
import type { AppDispatch } from '../../app/store.ts';

export const draftsApi = api.injectEndpoints({
  endpoints: (build) => ({
    draft: build.query<DraftReply, string>({
      query: (id) => requestFor('readDraft', { id }),
      providesTags: (_reply, _error, id) => tagsOf(id, 'Draft'),
    }),
    putDraft: build.mutation<DraftReply, { readonly id: string; readonly body: DraftBodyRequest }>({
      query: ({ id, body }) => requestFor('replaceDraft', { id }, { body }),
      onQueryStarted: keepReply,
      invalidatesTags: afterChange,
    }),
    redoDraft: build.mutation<DraftReply, { readonly id: string; readonly redo: string }>({
      query: ({ id, redo }) => requestFor('redoDraft', { id }, { body: { redo } }),
      onQueryStarted: keepReply,
      invalidatesTags: afterChange,
    }),
    dropDraft: build.mutation<void, { readonly id: string; readonly version: number }>({
      query: ({ id, version }) => requestFor('dropDraft', { id }, { query: { version } }),
      invalidatesTags: (_result, error, { id }) => [
        ...draftTags(id),
        ...(error ? tagsOf(id, 'Site') : (['Sites'] as const)),
      ],
    }),
    draftProof: build.query<DraftProofReply, string>({
      query: (id) => requestFor('readProof', { id }),
      providesTags: (_reply, _error, id) => tagsOf(id, 'Proof'),
    }),
    propose: build.mutation<
      ProposalReply,
      {
        readonly id: string;
        readonly base: number;
        readonly sheet: string;
        readonly pages?: readonly string[];
        readonly settings?: PlanSettingsRequest;
      }
    >({
      query: ({ id, ...body }) => requestFor('propose', { id }, { body }),
    }),
    effect: build.query<EffectReply, { readonly id: string } & EffectRequest>({
      query: ({ id, ...body }) => requestFor('tryOperations', { id }, { body }),
    }),
    save: build.mutation<SavedRevisionReply, { readonly id: string } & SaveRequest>({
      query: ({ id, ...body }) => requestFor('saveDraft', { id }, { body }),
      invalidatesTags: (_result, error, { id }) => [...revisionTags(id), ...(error ? tagsOf(id, 'State') : [])],
    }),
  }),
});

/** What was changed meanwhile is looked at again; what comes back of a change that was done is the draft itself. */
function afterChange(_result: unknown, error: unknown, { id }: { readonly id: string }) {
  if (!error) return [...draftTags(id), 'Sites' as const];
  return isConflict(error) ? [...draftTags(id), ...tagsOf(id, 'Site')] : [];
}

/** Nobody acts on an older draft than the one that came back. */
async function keepReply(
  { id }: { readonly id: string },
  {
    dispatch,
    queryFulfilled,
  }: { readonly dispatch: AppDispatch; readonly queryFulfilled: Promise<{ readonly data: DraftReply }> },
): Promise<void> {
  try {
    await dispatch(draftsApi.util.upsertQueryData('draft', id, (await queryFulfilled).data));
  } catch {
    // the one who asked says what was refused
  }
}

/** What operations would do, asked once; the one who asked may end it. */
export const askEffect = (asked: { readonly id: string } & EffectRequest) =>
  draftsApi.endpoints.effect.initiate(asked, { subscribe: false, forceRefetch: true });

export const { useDraftQuery, useDraftProofQuery, useEffectQuery, useLazyEffectQuery, useProposeMutation } = draftsApi;
